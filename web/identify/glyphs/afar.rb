# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # Habit, place, how it stands and climbs, what the season shows; rules for what is measured.
        module Afar
          private

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

          def habit_floating
            path("M4 40q7-5 14 0t14 0 14 0 14 0", stroke: WATER, width: 2.4) + [-150, -115, -90, -65, -30].map { |a| leaf(32, 40, a, length: 26, width: 15) }.join + path("M28 42v14M32 42v18M36 42v14", stroke: STEM)
          end

          def habitat_wet = habitat_water.sub("26", "40") + stem("M16 40V10M24 42V16M46 40V12") + path("M16 10v12M46 12v12", stroke: WOOD, width: 5)
          def stand_single = ground + stem("M32 52V20") + pair(40) + pair(28, length: 14)
          def stand_clump = ground + stem("M32 52V14M30 52L20 18M34 52L44 18M28 52L12 26M36 52L52 26")
          def stand_carpet = ground + (0..6).map { |n| leaf(8 + (n * 8), 50, n.odd? ? -60 : -120, length: 12, width: 8) }.join
          def stand_thicket = ground + (0..8).map { |n| "M#{8 + (n * 6)} 52V#{12 + ((n * 7) % 13)}" }.then { |lines| stem(lines.join) } + (0..6).map { |n| leaf(10 + (n * 7), 22 + ((n * 5) % 17), -40, length: 10, width: 6) }.join
          def pole = path("M32 62V2", stroke: WOOD, width: 9)
          def climbs_by_twining = pole + stem("M22 58C50 52 14 42 42 34S14 22 42 12") + leaf(42, 34, -20, length: 15) + leaf(22, 44, 200, length: 15)
          def climbs_by_tendrils = pole + stem("M12 60C14 40 10 20 14 4") + path("M13 40C22 36 26 44 36 40C42 38 40 32 34 33M13 20C22 16 26 24 36 20C42 18 40 12 34 13", stroke: STEM) + leaf(13, 30, 200, length: 13, width: 8)
          def climbs_by_rootlets = pole + stem("M40 62V4") + (0..8).map { |n| path("M40 #{10 + (n * 6)}l-6 2M40 #{12 + (n * 6)}l-5-2") }.join + leaf(40, 40, -25, length: 18) + leaf(40, 20, -25, length: 18)
          def climbs_by_leaning = pole + stem("M6 60C16 40 30 24 58 14") + leaf(20, 38, -120, length: 15) + leaf(44, 20, -110, length: 13) + leaf(30, 28, 20, length: 14)
          def snow = [[12, 14], [26, 8], [48, 12], [56, 26], [8, 32]].map { |x, y| path("M#{x - 3} #{y}h6M#{x} #{y - 3}v6M#{x - 2} #{y - 2}l4 4M#{x + 2} #{y - 2}l-4 4", stroke: WATER, width: 1.2) }.join
          def winter_leaf_bare = snow + ground + path("M32 52V22M32 40L20 26M32 40L44 26M32 32L26 18M32 32L38 18", stroke: "#8F7352", width: 2.4)
          def winter_leaf_green = snow + ground + stem("M32 52V20") + pair(44) + pair(32, length: 15)
          def green_when_early = ground + bush(14, false) + bush(32, true) + bush(50, false) + path("M8 10h14M22 10l-4-4M22 10l-4 4", stroke: STEM, width: 2)
          def green_when_same = ground + bush(14, true) + bush(32, true) + bush(50, true)
          def green_when_late = ground + bush(14, false) + bush(32, true) + bush(50, false) + path("M42 10h14M42 10l4-4M42 10l4 4", stroke: BERRY, width: 2)
          def bush(x, green) = path("M#{x} 52V38M#{x} 46l-5-8M#{x} 46l5-8", stroke: "#8F7352", width: 2) + (green ? path("M#{x - 9} 40q-1-18 9-20q10 2 9 20z", fill: LEAF) : path("M#{x} 38l-4-10M#{x} 38l4-10M#{x} 38v-14", stroke: "#8F7352"))
          def autumn_leaf_yellow = leaf(32, 60, -90, length: 54, width: 36, fill: "#EBC04A")
          def autumn_leaf_red = leaf(32, 60, -90, length: 54, width: 36, fill: "#C2452D")
          def autumn_leaf_green = leaf(32, 60, -90, length: 54, width: 36, fill: "#A7A96B")
          def measured_cm = rule("cm")
          def measured_mm = rule("mm")
          def measured_count = path("M14 50V14M26 50V14M38 50V14M50 50V14M8 42L56 22", width: 2.6)
          def rule(unit) = path("M4 24h56v18H4z", fill: PALE) + path("M10 24v8M16 24v5M22 24v8M28 24v5M34 24v8M40 24v5M46 24v8M52 24v5") + %(<text x="32" y="58" font-size="11" text-anchor="middle" fill="#{INK}" stroke="none">#{unit}</text>)
        end
      end
    end
  end
end
