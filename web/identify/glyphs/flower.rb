# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # Flowers and how they sit together.
        module Flower
          private

          def petals_four = petals(4, "#EFE7F4")
          def petals_five = petals(5, "#EFE7F4")

          def petals_tube
            path("M29 58V34C22 26 16 22 10 20C18 16 24 18 28 22C28 14 30 8 32 6C34 8 36 14 36 22C40 18 46 16 54 20C48 22 42 26 35 34V58z",
                 fill: "#EFE7F4")
          end

          def petals_none = stem("M32 60V12") + (0..5).map { |n| ring(32 + (n.odd? ? 4 : -4), 14 + (n * 5), 3, LEAF) }.join

          def flower_colour(state) = petals(5, COLOURS.fetch(state))
          def petals_three = petals(3, "#EFE7F4")
          def petals_six = petals(8, "#EFE7F4")
          def petals_pea = path("M32 30C14 26 12 8 32 6C52 8 50 26 32 30z", fill: "#EFE7F4") + path("M20 30C12 36 14 48 28 48L32 30zM44 30C52 36 50 48 36 48L32 30z", fill: "#DCCFE6") + path("M32 30c-7 8-7 20 0 24c7-4 7-16 0-24z", fill: "#FFFDF7")
          def petals_lipped = path("M16 30C14 12 34 6 46 16C40 18 38 24 40 30C50 34 54 46 46 54C36 54 28 48 26 40C20 40 16 36 16 30z", fill: "#EFE7F4") + path("M26 40C30 36 36 34 40 30") + path("M16 34L6 44", stroke: STEM, width: 3)
          def petals_rays = (0...14).map { |i| leaf(32, 32, i * 360 / 14, length: 27, width: 8, fill: "#EFE7F4") }.join + ring(32, 32, 9, "#E3B94A")
          def petals_brush = path("M20 34L14 10M25 34L22 6M30 34L29 4M34 34L35 4M39 34L42 6M44 34L50 10", stroke: "#8E4FA3", width: 2.4) + path("M18 34h28q4 18-14 22q-18-4-14-22z", fill: LEAF) + path("M20 40l24 10M44 40l-24 10")
          def bloom(x, y, r = 5) = ring(x, y, r, "#E8D7F0")
          def flower_cluster_single = stem("M32 62V22") + leaf(32, 50, -28) + bloom(32, 16, 9)
          def flower_cluster_spike = stem("M32 62V6") + (0..6).map { |n| bloom(n.odd? ? 37 : 27, 8 + (n * 6), 4.5) }.join
          def flower_cluster_umbel = stem("M32 62V40M32 40L10 20M32 40L20 15M32 40L32 12M32 40L44 15M32 40L54 20") + [[10, 17], [20, 12], [32, 9], [44, 12], [54, 17]].map { |x, y| bloom(x, y) }.join
          def flower_cluster_hanging = stem("M8 8h48M32 8V52") + (0..5).map { |n| bloom(n.odd? ? 38 : 26, 16 + (n * 7), 4.5) }.join
          def flower_cluster_loose = stem("M32 62V10M32 48L12 32M32 48L52 32M32 34L16 16M32 34L48 16") + [[12, 30], [52, 30], [16, 14], [48, 14], [32, 8]].map { |x, y| bloom(x, y, 4.5) }.join
          def flower_cluster_axils = stem + [50, 36, 22].map { |y| pair(y, length: 20, width: 9) + bloom(38, y - 8, 4) + bloom(26, y - 8, 4) }.join
          def flower_cluster_head = stem("M32 62V38") + ring(32, 24, 17, "#E8D7F0") + [[24, 18], [32, 14], [40, 18], [22, 28], [32, 24], [42, 28], [32, 34]].map { |x, y| bloom(x, y, 4) }.join
          def flower_stalk_none = stem + pair(34, length: 20) + bloom(38, 30, 7)
          def flower_stalk_short = stem + pair(40, length: 20) + path("M32 38L40 28", stroke: STEM, width: 2) + bloom(42, 25, 7)
          def flower_stalk_long = stem + pair(48, length: 20) + path("M32 46L50 18", stroke: STEM, width: 2) + bloom(52, 13, 7)
          def flower_scent_none = petals(5, "#FFFDF7")
          def flower_scent_sweet = flower_cluster_single + path("M46 14c5-3 1-7 6-10M48 24c5-3 3-7 8-9", stroke: "#6A2C7F", width: 2.2)
          def flower_scent_foul = flower_cluster_single + path("M46 10l8-6M54 10l-8-6M48 24l8-6M56 24l-8-6", stroke: "#5F6B73", width: 2.4)
          def thistle_head(extra) = path("M22 24L18 6M29 24L27 4M35 24L37 4M42 24L46 6", stroke: "#8E4FA3", width: 2.4) + path("M16 26h32q6 24-16 30q-22-6-16-30z", fill: LEAF) + extra
          def bracts_plain = thistle_head(path("M18 34q14 8 28 0M18 43q14 8 28 0"))
          def bracts_fringed = thistle_head([[22, 34], [32, 36], [42, 34], [27, 45], [37, 45]].map { |x, y| path("M#{x - 4} #{y + 5}l4-9 4 9z", fill: INK) }.join)
          def bracts_spiny = thistle_head(path("M18 32L2 24M17 42L2 48M46 32l16-8M47 42l15 6M28 54l-6 9M36 54l6 9", width: 2.4))
          def bracts_prickly = thistle_head(path("M20 34l-5-2M19 42l-5 2M44 34l5-2M45 42l5 2M28 40l-2-4M36 40l2-4M32 48l0-4", width: 2))
        end
      end
    end
  end
end
