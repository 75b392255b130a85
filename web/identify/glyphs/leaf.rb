# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # Leaves: how they sit, their form, edge, sides and smell.
        module Leaf
          private

          def leaf_arrangement_alternate = stem + leaf(32, 52, -28) + leaf(32, 41, -152) + leaf(32, 30, -28) + leaf(32, 19, -152)
          def leaf_arrangement_opposite = stem + pair(50) + pair(35) + pair(20)
          def leaf_arrangement_whorled = stem + [46, 24].map { |y| [-20, -60, -120, -160].map { |a| leaf(32, y, a, length: 16, width: 8) }.join }.join
          def leaf_arrangement_basal = ground + [-165, -130, -105, -75, -50, -15].map { |a| leaf(32, 52, a, length: 28, width: 11) }.join
          def leaf_type_simple = leaf(32, 60, -90, length: 52, width: 34)
          def leaf_type_pinnate = stem + [52, 42, 32, 22].map { |y| pair(y, length: 19, width: 9) }.join + leaf(32, 14, -90, length: 12, width: 8)
          def leaf_type_palmate = stem("M32 60V44") + [-90, -130, -50, -165, -15].map { |a| leaf(32, 44, a, length: 30, width: 10) }.join
          def leaf_type_feathery = stem + [54, 46, 38, 30, 22, 14].map { |y| path("M32 #{y}L10 #{y - 12}M32 #{y}L54 #{y - 12}", stroke: STEM) }.join
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
          def smell_none = leaf(14, 50, -40, length: 44, width: 24)
          def smell_garlic = smell_none + path("M20 20c-4-4 4-6 0-10M30 16c-4-4 4-6 0-10M10 26c-4-4 4-6 0-10", stroke: STEM, width: 2.2)
          def smell_burnt = smell_none + path("M20 20c-4-4 4-6 0-10M30 16c-4-4 4-6 0-10M10 26c-4-4 4-6 0-10", stroke: BERRY, width: 2.2)
          def smell_almond = smell_none + [[16, 14], [28, 8], [8, 24]].map { |x, y| path("M#{x} #{y - 6}q6 5 0 12q-6-7 0-12z", fill: WOOD, stroke: BERRY) }.join
          def sap_clear = broken_stalk("#DCEBF2")
          def sap_milky = broken_stalk("#FFFFFF")
          def broken_stalk(drop) = path("M32 60V36M32 30L44 8", stroke: STEM, width: 5) + path("M30 34c-8 8-6 14 0 14s8-6 0-14z", fill: drop)

          def leaf_type_three = stem("M32 60V36") + [-90, -155, -25].map { |a| leaf(32, 36, a, length: 29, width: 17) }.join
          def leaf_type_blade = blade("M22 60C22 36 30 18 52 6C42 22 32 40 32 60z") + path("M27 60C28 38 36 20 52 6")

          def leaf_type_twice
            stem + [50, 36, 22].map { |y| [1, -1].map { |side| twig_of_leaflets(y, side) }.join }.join + leaf(32, 12, -90, length: 8, width: 5)
          end

          def twig_of_leaflets(y, side)
            path("M32 #{y}L#{32 + (side * 24)} #{y - 9}", stroke: STEM) + (1..4).map { |n|
              leaf(32 + (side * n * 5.5), y - (n * 2.1), side * 60, length: 7, width: 5) + leaf(32 + (side * n * 5.5), y - (n * 2.1), -90, length: 7, width: 5)
            }.join
          end

          def leaf_type_forked = stem("M32 60V34L18 10M32 34L46 10M24 21L26 6M40 21L38 6")
          def leaf_type_scales = stem + (0..8).map { |n| leaf(32, 56 - (n * 5.5), n.odd? ? -50 : -130, length: 7, width: 5) }.join

          def leaf_margin_spiny
            outline("M32 58L27 52 14 54 20 46 8 42 18 36 8 28 18 26 14 14 25 18 32 4 39 18 50 14 46 26 56 28 46 36 56 42 44 46 50 54 37 52z")
          end

          def leaf_shape_triangle = outline("M32 6L56 52C44 48 40 50 32 52C24 50 20 48 8 52z")
          def leaf_tip_blunt = outline("M32 58C12 50 12 22 24 14C29 11 35 11 40 14C52 22 52 50 32 58z")
          def leaf_tip_pointed = outline("M32 58C12 48 14 26 32 8C50 26 52 48 32 58z")
          def leaf_tip_long = outline("M32 60C10 54 14 34 28 26C31 20 31 10 32 2C33 10 33 20 36 26C50 34 54 54 32 60z")
          def leaf_tip_notched = outline("M32 58C10 48 8 18 22 10C27 7 31 10 32 18C33 10 37 7 42 10C56 18 54 48 32 58z")
          def whorl_count_three = whorl(3)
          def whorl_count_four = whorl(5)
          def whorl_count_more = whorl(9)
          def whorl(n) = (0...n).map { |i| leaf(32, 32, (i * 360.0 / n) - 90, length: 25, width: n > 6 ? 7 : 10) }.join + ring(32, 32, 4, STEM)
          def leaf_underside_green = flipped(LEAF)
          def leaf_underside_pale = flipped("#EEF2EA")
          def leaf_underside_woolly = flipped("#F4F1EA") + scatter { |x, y| path("M#{x - 2} #{y}q2-4 4 0", stroke: "#8b8778") }
          def leaf_underside_silver = flipped("#C9D0D2") + scatter { |x, y| ring(x, y, 1.3, "#7D868A") }
          def leaf_underside_hairy = flipped(LEAF) + scatter { |x, y| path("M#{x} #{y}v-5") }

          # A leaf turned over, its stalk up and its veins standing out.
          def flipped(fill)
            path("M32 60C10 46 12 20 32 6C52 20 54 46 32 60z", fill:) + path("M32 64V10M32 46L20 36M32 46L44 36M32 32L22 24M32 32L42 24", width: 2.2)
          end

          def scatter(&) = [[24, 42], [40, 42], [26, 30], [38, 30], [29, 20], [36, 50]].map(&).join
          def leaf_surface_dull = outline("M32 56C10 44 12 20 32 6C52 20 54 44 32 56z")
          def leaf_surface_glossy = leaf_surface_dull + path("M20 38C18 28 22 20 27 16", stroke: "#FFFFFF", width: 4) + path("M24 44l.1 .1", stroke: "#FFFFFF", width: 4)
          def leaf_surface_rough = leaf_surface_dull + scatter { |x, y| path("M#{x - 2} #{y}l2-4 2 4", fill: INK) }
          def leaf_surface_wrinkled = leaf_surface_dull + scatter { |x, y| path("M#{x - 5} #{y}q2.500-4 5 0t5 0") }
          def leaf_surface_blotched = leaf_surface_dull + path("M28 40q-8-4-4-12t8 2zM36 46q8-2 6-9t-8 0z", fill: "#8A5A6E")
          def leaf_base_stalk = stem + path("M32 40L42 34", stroke: STEM, width: 2.4) + leaf(42, 34, -32, length: 20, width: 13)
          def leaf_base_none = stem + leaf(32, 40, -32, length: 28, width: 14)
          def leaf_base_clasping = stem + path("M26 44C24 36 30 34 34 34C44 30 52 24 58 16C58 32 50 44 36 46C32 47 27 48 26 44z", fill: LEAF)
          def leaf_base_joined = path("M4 34C14 22 24 24 32 28C40 24 50 22 60 34C50 44 40 42 32 38C24 42 14 44 4 34z", fill: LEAF) + stem("M32 60V4")
          def leaf_base_collar = stem + ring(32, 38, 9, LEAF) + stem("M32 38V4") + leaf(36, 34, -32, length: 24, width: 13)
          def veins_feather = veined("M32 46L19 36M32 46L45 36M32 34L20 25M32 34L44 25M32 23L24 17M32 23L40 17")
          def veins_hand = veined("M32 52L14 32M32 52L50 32M32 52L22 18M32 52L42 18")
          def veins_arching = veined("M32 50C18 46 20 24 30 12M32 50C46 46 44 24 34 12M32 50C24 44 26 26 31 16M32 50C40 44 38 26 33 16")
          def veins_parallel = path("M24 60C18 40 20 20 32 4C44 20 46 40 40 60z", fill: LEAF) + path("M32 60V8M28 60C25 40 26 24 31 12M36 60C39 40 38 24 33 12")
          def veined(veins) = outline("M32 56C8 46 12 18 32 6C52 18 56 46 32 56z") + path(veins, width: 1.3)
          def leaf_tint(state) = leaf(32, 60, -90, length: 54, width: 34, fill: TINTS.fetch(state)) + (state == "variegated" ? path("M32 50L20 34M32 44L44 30M32 30L26 20", stroke: "#FFFFFF", width: 3) : "")
          def leaf_prickles_none = leaf_surface_dull
          def leaf_prickles_edge = leaf_surface_dull + path("M13 34l-8 2M15 24l-8-3M51 34l8 2M49 24l8-3M22 14l-5-7M42 14l5-7M17 44l-8 4M47 44l8 4", width: 2)
          def leaf_prickles_midrib = flipped(LEAF) + path("M32 52l-7 4M32 40l7 4M32 28l-7 4M32 18l6 3", stroke: BERRY, width: 2.6)
          def leaf_mix_alike = stem + pair(46) + pair(24)
          def leaf_mix_mixed = stem + leaf(32, 46, -150, length: 26, width: 17) + path("M32 40l8-2 2-8 6 4 8-2-4 8 6 6-10 2-4 6-4-6z", fill: LEAF) + leaf(32, 22, -30, length: 24, width: 16)
          def stipules_none = stem + path("M32 40L54 22", stroke: STEM, width: 3)
          def stipules_leafy = stipules_none + leaf(33, 40, -10, length: 16, width: 9) + leaf(31, 40, -170, length: 16, width: 9)
          def stipules_fringed = stipules_none + path("M32 42q14 4 18-8M36 42l1 7M41 42l3 6M46 40l5 4M49 36l6 2", width: 2)
          def stipules_sheath = stipules_none + path("M26 44l1-18 5 4 5-4 1 18z", fill: "#E4D3B0")
          def middle_leaflet_same = stem("M32 60V40") + [-90, -155, -25].map { |a| leaf(32, 40, a, length: 28, width: 16) }.join
          def middle_leaflet_longer = stem("M32 60V26") + leaf(32, 26, -90, length: 24, width: 16) + leaf(32, 44, -155, length: 26, width: 15) + leaf(32, 44, -25, length: 26, width: 15)
          def rosette_none = ground + stem("M32 52V10") + pair(34) + pair(20, length: 14)
          def rosette_flat = [0, 45, 90, 135, 180, 225, 270, 315].map { |a| leaf(32, 32, a, length: 27, width: 12) }.join + ring(32, 32, 3, STEM)
          def glands_none = leaf_base_stalk
          def glands_leaflet = leaf(14, 46, -38, length: 48, width: 26) + ring(20, 50, 3, BERRY) + ring(15, 38, 3, BERRY)
          def glands_stalk = path("M8 58L26 42", stroke: STEM, width: 3) + leaf(26, 42, -42, length: 40, width: 24) + ring(18, 44, 3, BERRY) + ring(23, 51, 3, BERRY)
          def smell_mint = smell_none + path("M18 22c-6 0-6-8 0-8M30 16c-6 0-6-8 0-8M10 30c-6 0-6-8 0-8", stroke: WATER, width: 2.2)
          def smell_rank = smell_none + path("M14 18l6-6M20 18l-6-6M28 12l6-6M34 12l-6-6M6 28l6-6M12 28l-6-6", stroke: "#5F6B73", width: 2.2)
          def smell_spice = smell_none + [[16, 16], [28, 10], [8, 26]].map { |x, y| path("M#{x} #{y - 5}v10M#{x - 5} #{y}h10M#{x - 3} #{y - 3}l6 6M#{x + 3} #{y - 3}l-6 6", stroke: "#9A6A00", width: 1.8) }.join
        end
      end
    end
  end
end
