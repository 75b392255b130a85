# frozen_string_literal: true

module Thistle
  module Web
    # The drawn states of characters, as one SVG sprite: <symbol id="pith-hollow">. Drawn from a few strokes
    # (leaf, stem, ring, flower), so that a new state is a line here. All in a 64 x 64 box.
    module Glyphs
      INK = "#1E2A27"
      LEAF = "#C9DAB0"
      STEM = "#4C6B2F"
      WOOD = "#D9B98A"
      PALE = "#F3E6CC"
      BERRY = "#B4412A"
      WATER = "#2F6C8C"

      class << self
        def sprite
          @sprite ||= begin
            symbols = drawings.map do |id, body|
              %(<symbol id="#{id}" viewBox="0 0 64 64" fill="none" stroke="#{INK}" stroke-width="1.6" stroke-linecap="round" stroke-linejoin="round">#{body}</symbol>)
            end
            %(<svg xmlns="http://www.w3.org/2000/svg">#{symbols.join}</svg>)
          end
        end

        # {"character-state" => drawing}; a state without one of its own gets a plain ring.
        def drawings
          Core::Knowledge.shipped.characters.values.flat_map do |character|
            character.states.keys.map { |state| ["#{character.key}-#{state}", draw(character.key, state)] }
          end
        end

        def draw(character, state)
          name = :"#{character}_#{state}"
          respond_to?(name, true) ? send(name) : ring(32, 32, 14, PALE)
        end

        private

        # --- strokes -------------------------------------------------------------------------------------
        def leaf(x, y, angle, length: 18, width: 10, fill: LEAF)
          half = width / 2.0
          %(<path fill="#{fill}" transform="translate(#{x} #{y}) rotate(#{angle})" d="M0 0C#{length * 0.3} #{-half} #{length * 0.7} #{-half} #{length} 0C#{length * 0.7} #{half} #{length * 0.3} #{half} 0 0zM0 0H#{length * 0.8}"/>)
        end

        def stem(path = "M32 60V6") = %(<path d="#{path}" stroke="#{STEM}" stroke-width="2.6"/>)
        def ring(x, y, r, fill) = %(<circle cx="#{x}" cy="#{y}" r="#{r}" fill="#{fill}"/>)
        def path(d, fill: "none", stroke: INK, width: 1.6) = %(<path d="#{d}" fill="#{fill}" stroke="#{stroke}" stroke-width="#{width}"/>)
        def pair(y, **size) = leaf(32, y, -28, **size) + leaf(32, y, -152, **size)
        def ground = path("M6 52h52", stroke: WOOD, width: 2)
        def blade(d) = path(d, fill: LEAF)
        def petals(n, fill) = (0...n).map { |i| leaf(32, 32, i * 360 / n, length: 20, width: 15, fill:) }.join + ring(32, 32, 4, "#E3B94A")
        def outline(d) = path(d, fill: LEAF) + path("M32 58V14")
        def twig(core) = ring(32, 32, 22, WOOD) + ring(32, 32, 15, PALE) + ring(32, 32, 7, core)

        # --- habit ---------------------------------------------------------------------------------------
        def habit_vine
          path("M24 60V6M30 60V6", stroke: WOOD,
                                   width: 3) + stem("M20 58C44 50 12 40 36 32S14 16 34 8") + leaf(36, 46, -20,
                                                                                                  length: 14) + leaf(20, 36, 200,
                                                                                                                     length: 14) + leaf(36, 20, -20,
                                                                                                                                        length: 14)
        end

        def habit_tree
          path("M32 60V30", stroke: WOOD,
                            width: 5) + path("M14 30a10 10 0 0 1 6-17 13 13 0 0 1 24 0 10 10 0 0 1 6 17q-9 8-18 4-9 4-18-4z", fill: LEAF)
        end

        def habit_shrub
          stem("M32 58V30M32 58L18 30M32 58L46 30M32 50L10 38M32 50L54 38") + path(
            "M6 36a10 10 0 0 1 8-14 14 14 0 0 1 36 0 10 10 0 0 1 8 14q-13 8-26 2-13 6-26-2z", fill: LEAF
          )
        end

        def habit_herb = ground + stem("M32 52V16") + pair(42, length: 16) + pair(30, length: 14) + ring(32, 14, 5, "#E8D7F0")

        def habit_mat
          ground + stem("M8 46C20 40 26 48 32 48S44 40 56 46") + (1..5).map { |n|
            leaf(6 + (n * 9), 45, n.odd? ? -60 : -120, length: 11, width: 7)
          }.join + path("M32 52v10", stroke: WOOD, width: 3)
        end

        def habit_grass
          ground + stem("M32 52C30 34 20 22 12 18M32 52C32 34 32 20 30 8M32 52C34 34 44 22 52 18M32 52C29 40 22 34 16 32M32 52C35 40 42 34 48 32")
        end

        def habit_fern
          stem("M32 60C32 40 30 20 44 8") + (0..5).map { |n|
            leaf(33 + (n * 1.2), 50 - (n * 7), -30, length: 15 - n, width: 6) + leaf(32 + (n * 1.2), 50 - (n * 7), 200, length: 15 - n, width: 6)
          }.join
        end

        def habit_underwater
          path("M4 14q7-5 14 0t14 0 14 0 14 0", stroke: WATER, width: 2.4) + stem("M32 60C28 44 36 34 32 20") + [50, 42, 34, 26].map { |y|
            path("M32 #{y}l-12-7M32 #{y}l12-7M32 #{y}l-14 0M32 #{y}l14 0", stroke: STEM)
          }.join
        end

        # --- leaves --------------------------------------------------------------------------------------
        def leaf_arrangement_alternate = stem + leaf(32, 52, -28) + leaf(32, 41, -152) + leaf(32, 30, -28) + leaf(32, 19, -152)
        def leaf_arrangement_opposite = stem + pair(50) + pair(35) + pair(20)
        def leaf_arrangement_whorled = stem + [46, 24].map { |y| [-20, -60, -120, -160].map { |a| leaf(32, y, a, length: 16, width: 8) }.join }.join
        def leaf_arrangement_basal = ground + [-165, -130, -105, -75, -50, -15].map { |a| leaf(32, 52, a, length: 28, width: 11) }.join
        def leaf_type_simple = leaf(32, 60, -90, length: 52, width: 34)
        def leaf_type_pinnate = stem + [52, 42, 32, 22].map { |y| pair(y, length: 19, width: 9) }.join + leaf(32, 14, -90, length: 12, width: 8)
        def leaf_type_palmate = stem("M32 60V44") + [-90, -130, -50, -165, -15].map { |a| leaf(32, 44, a, length: 30, width: 10) }.join
        def leaf_type_feathery = stem + [54, 46, 38, 30, 22, 14].map { |y| path("M32 #{y}L10 #{y - 12}M32 #{y}L54 #{y - 12}", stroke: STEM) }.join
        def leaf_type_blade = blade("M22 60C22 36 30 18 52 6C42 22 32 40 32 60z") + path("M27 60C28 38 36 20 52 6")
        def leaf_margin_smooth = outline("M32 56C10 44 12 20 32 6C52 20 54 44 32 56z")

        def leaf_margin_toothed
          outline("M32 56L24 51 25 48 17 44 19 41 13 36 16 33 12 28 17 26 15 20 21 19 21 13 27 13 32 6 37 13 43 13 43 19 49 20 47 26 52 28 48 33 51 36 45 41 47 44 39 48 40 51z")
        end

        def leaf_margin_base_teeth
          outline("M32 56C26 54 24 52 22 49L16 52 19 45C12 36 16 16 32 6C48 16 52 36 45 45L48 52 42 49C40 52 38 54 32 56z") + ring(17, 50, 2,
                                                                                                                                   BERRY) + ring(47,
                                                                                                                                                 50, 2, BERRY)
        end

        def leaf_margin_scalloped
          outline("M32 56q-6 1-8-4-7 0-7-6-6-2-4-8-5-4-1-9-2-6 4-8 0-6 7-7 2-6 9-8 7 2 9 8 7 1 7 7 6 2 4 8 4 5-1 9 2 6-4 8 0 6-7 6-2 5-8 4z")
        end

        def leaf_margin_lobed
          outline("M32 56C24 56 26 48 24 47C14 52 8 44 14 40C18 38 22 38 22 35C10 36 8 24 16 24C22 24 24 27 25 22C20 14 26 6 32 6C38 6 44 14 39 22C40 27 42 24 48 24C56 24 54 36 42 35C42 38 46 38 50 40C56 44 50 52 40 47C38 48 40 56 32 56z")
        end

        def leaf_shape_round = outline("M32 56C8 52 10 14 32 12C54 14 56 52 32 56z")
        def leaf_shape_oval = outline("M32 56C14 46 16 18 32 8C48 18 50 46 32 56z")
        def leaf_shape_pointed = outline("M32 58C12 50 16 30 26 22C29 19 31 12 32 4C33 12 35 19 38 22C48 30 52 50 32 58z")
        def leaf_shape_heart = outline("M32 50C26 60 8 54 10 38C12 24 26 18 32 6C38 18 52 24 54 38C56 54 38 60 32 50z")
        def leaf_shape_narrow = outline("M32 60C24 46 24 18 32 4C40 18 40 46 32 60z")

        # --- where, thorns -------------------------------------------------------------------------------
        def habitat_woods
          ground + [14, 32, 50].map { |x| path("M#{x} 52V34", stroke: WOOD, width: 4) + path("M#{x - 9} 36q-2-20 9-24q11 4 9 24z", fill: LEAF) }.join
        end

        def habitat_edge
          ground + path("M14 52V32", stroke: WOOD,
                                     width: 4) + path("M4 34q-2-20 10-26q12 6 10 26z",
                                                      fill: LEAF) + path("M30 60C40 50 38 46 56 42", stroke: WOOD, width: 4)
        end

        def habitat_open = ground + ring(46, 16, 7, "#F0D58A") + stem("M12 52l-3-10M16 52l1-13M30 52l-2-11M34 52l3-12M48 52l-2-10M52 52l3-11")

        def habitat_bare
          path("M6 46q26-10 52 0v12H6z", fill: PALE) + [[16, 51], [26, 48], [36, 53], [46, 50], [30, 55]].map { |x, y| ring(x, y, 1.6, WOOD) }.join
        end

        def habitat_water = [26, 36, 46].map { |y| path("M6 #{y}q6.500-5 13 0t13 0 13 0 13 0", stroke: WATER, width: 2.4) }.join
        def thorns_none = stem + leaf(32, 44, -28) + leaf(32, 26, -152)
        def thorns_single = stem + [48, 34, 20].map { |y| path("M33 #{y}l15-4-14 8z", fill: INK) }.join
        def thorns_three = stem + [46, 24].map { |y| path("M32 #{y}l16-6-14 9zM32 #{y}l-16-6 14 9zM31 #{y}l1-15 2 15z", fill: INK) }.join

        def thorns_burr
          ring(32, 34, 13, WOOD) + (0...8).map { |n| %(<path transform="rotate(#{n * 45} 32 34)" d="M29 22l3-14 3 14z" fill="#{INK}"/>) }.join
        end

        # --- flower and fruit ----------------------------------------------------------------------------
        def flower_colour_white = petals(5, "#FFFFFF")
        def flower_colour_yellow = petals(5, "#F2CF4A")
        def flower_colour_pink = petals(5, "#CFA0DC")
        def flower_colour_green = petals(5, "#B5CC8E")
        def petals_four = petals(4, "#EFE7F4")
        def petals_five = petals(5, "#EFE7F4")

        def petals_tube
          path("M29 58V34C22 26 16 22 10 20C18 16 24 18 28 22C28 14 30 8 32 6C34 8 36 14 36 22C40 18 46 16 54 20C48 22 42 26 35 34V58z",
               fill: "#EFE7F4")
        end

        def petals_none = stem("M32 60V12") + (0..5).map { |n| ring(32 + (n.odd? ? 4 : -4), 14 + (n * 5), 3, LEAF) }.join
        def fruit_berry = stem("M32 10C32 22 22 26 22 34M32 10C32 22 42 26 42 34") + ring(22, 42, 9, BERRY) + ring(42, 42, 9, BERRY)

        def fruit_capsule
          path("M32 8V22", stroke: STEM,
                           width: 2.6) + ring(32, 38, 12,
                                              BERRY) + path(
                                                "M32 22C18 22 10 32 12 46C18 42 22 34 32 22zM32 22C46 22 54 32 52 46C46 42 42 34 32 22zM32 22l0 14", fill: "#E9B949"
                                              )
        end

        def fruit_wing = path("M12 40C20 18 38 12 54 16C50 34 36 46 18 46z", fill: PALE) + ring(32, 31, 5, WOOD)
        def fruit_spiny = thorns_burr

        def fruit_pod
          stem("M14 54L22 46") + path("M22 46C34 36 46 22 52 8C44 20 32 34 18 42z",
                                      fill: LEAF) + path("M14 40C26 30 36 18 40 6C34 18 24 28 10 36z", fill: LEAF)
        end

        def fruit_nutlets
          [[24, 24], [38, 20], [30, 36], [44, 36], [22, 46], [37, 50]].map do |x, y|
            %(<ellipse cx="#{x}" cy="#{y}" rx="3.500" ry="5" fill="#{WOOD}"/>)
          end.join
        end

        def fruit_cluster
          stem("M32 60V46") + (0..4).flat_map { |row|
            (0..(4 - row)).map { |n|
              ring(32 - ((4 - row) * 4) + (n * 8), 46 - (row * 8), 4.4, BERRY)
            }
          }.join
        end

        def fruit_place_along = stem + [48, 36, 24, 12].map { |y| ring(40, y, 4, BERRY) + leaf(32, y, -160, length: 15, width: 8) }.join

        def fruit_place_tip
          stem("M32 60V22") + [52, 42, 32].map { |y|
            leaf(32, y, -160, length: 15, width: 8)
          }.join + [[26, 14], [32, 8], [38, 14], [32, 19]].map { |x, y|
                     ring(x, y, 4.4, BERRY)
                   }.join
        end

        def seed_head_brush
          stem("M32 60V46") + %(<rect x="25" y="8" width="14" height="38" rx="7" fill="#C79A7A"/>) + (0..6).map { |n|
            path("M25 #{13 + (n * 5)}l-8-4M39 #{13 + (n * 5)}l8-4")
          }.join
        end

        def seed_head_awns = stem("M32 60V40") + [-14, -5, 5, 14].map { |x| path("M32 40C#{32 + x} 32 #{32 - x} 22 #{32 + x} 6") }.join
        def seed_head_spikes = stem + [16, 24, 32, 40].map { |y| path("M32 #{y}l12-5-2 8z", fill: WOOD) }.join

        def seed_head_open
          stem("M32 60V20M32 44L14 26M32 44L50 26M32 34L20 14M32 34L44 14") + [[14, 26], [50, 26], [20, 14], [44, 14], [32, 18]].map { |x, y|
            ring(x, y, 3, WOOD)
          }.join
        end

        # --- cut, scratched, dug, crushed ----------------------------------------------------------------
        def pith_hollow = twig(INK)
        def pith_white = twig("#FFFFFF")
        def pith_brown = twig("#8A5A2E")
        def inner_wood_yellow = scratched("#F0C419")
        def inner_wood_pale = scratched("#E4E9C8")
        def scratched(fill) = %(<rect x="20" y="4" width="24" height="56" rx="3" fill="#8F7352"/>) + path("M26 16q6-4 12 0v30q-6 6-12 0z", fill:)
        def root_colour_orange = root("#E2791B")
        def root_colour_pale = root("#EADBBE")

        def root(fill)
          ground.sub("52", "22").sub("52h",
                                     "22h") + stem("M32 22V6") + path(
                                       "M28 22C28 40 30 50 26 60C34 52 36 40 36 22zM28 30C20 36 14 38 8 46C16 42 24 40 30 38M36 30C44 36 50 38 56 46C48 42 40 40 34 38", fill:
                                     )
        end

        def root_colour_s_bend
          path("M6 22h52", stroke: WOOD,
                           width: 2) + stem("M32 22V6") + path("M32 22C46 28 44 36 34 38C28 40 30 48 32 60", stroke: INK,
                                                                                                             width: 6) + path(
                                                                                                               "M32 22C46 28 44 36 34 38C28 40 30 48 32 60", stroke: "#F4EBD6", width: 3.4
                                                                                                             )
        end

        def smell_none = leaf(14, 50, -40, length: 44, width: 24)
        def smell_garlic = smell_none + path("M20 20c-4-4 4-6 0-10M30 16c-4-4 4-6 0-10M10 26c-4-4 4-6 0-10", stroke: STEM, width: 2.2)
        def smell_burnt = smell_none + path("M20 20c-4-4 4-6 0-10M30 16c-4-4 4-6 0-10M10 26c-4-4 4-6 0-10", stroke: BERRY, width: 2.2)
        def sap_clear = broken_stalk("#DCEBF2")
        def sap_milky = broken_stalk("#FFFFFF")
        def broken_stalk(drop) = path("M32 60V36M32 30L44 8", stroke: STEM, width: 5) + path("M30 34c-8 8-6 14 0 14s8-6 0-14z", fill: drop)
        def leaflet_pairs_few = comb(5)
        def leaflet_pairs_many = comb(13)

        def comb(pairs)
          stem("M32 60V6") + (1..pairs).map { |n|
            y = 58 - (n * 48.0 / pairs)
            path("M32 #{y.round}l-18-8M32 #{y.round}l18-8", stroke: STEM)
          }.join
        end

        def leaflet_pairs_forked = stem("M32 60V34L18 10M32 34L46 10M24 21L26 6M40 21L38 6")

        def out_of_water_limp
          path("M10 12h44", stroke: WOOD, width: 3) + stem("M32 12C34 24 30 40 32 58") + [24, 34, 44, 54].map { |y|
            path("M32 #{y - 6}l-4 8M32 #{y - 6}l4 8", stroke: STEM)
          }.join
        end

        def out_of_water_stiff
          path("M10 12h44", stroke: WOOD, width: 3) + stem("M32 12V58") + [22, 32, 42, 52].map { |y|
            path("M32 #{y}l-15-5M32 #{y}l15-5M32 #{y}l-15 3M32 #{y}l15 3", stroke: STEM)
          }.join
        end
      end
    end
  end
end
