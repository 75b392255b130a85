# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # Plants of the water.
        module Water
          private

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

          def strap(edge) = path(edge, fill: LEAF) + path("M32 60V6")
          def water_edge_smooth = strap("M22 60C20 40 22 18 32 4C42 18 44 40 42 60z")
          def water_edge_saw = strap("M22 60l-6-5 5-4-6-6 6-4-5-6 6-4-4-6 7-4-2-6 6-4 3-7 3 7 6 4-2 6 7 4-4 6 6 4-5 6 6 4-6 6 5 4-6 5z")
          def water_edge_wavy = strap("M24 60q-10-6-2-12t-2-12 4-12 2-10T32 4q6 4 6 10t2 10 4 12-2 12-2 12z")
          def water_edge_none = leaf_type_feathery
          def surface = path("M4 22q7-5 14 0t14 0 14 0 14 0", stroke: WATER, width: 2.4)
          def floats_none = surface + stem("M32 60C28 50 36 42 32 30") + [54, 46, 38].map { |y| path("M32 #{y}l-11-6M32 #{y}l11-6", stroke: STEM) }.join
          def floats_leaves = surface + stem("M32 60C26 46 40 36 32 22") + %(<ellipse cx="20" cy="20" rx="13" ry="5" fill="#{LEAF}"/><ellipse cx="46" cy="20" rx="12" ry="5" fill="#{LEAF}"/>)
          def floats_swollen = surface + leaf(28, 18, -110, length: 16, width: 14) + leaf(38, 18, -70, length: 16, width: 14) + %(<ellipse cx="26" cy="24" rx="6" ry="8" fill="#A9C48C"/><ellipse cx="40" cy="24" rx="6" ry="8" fill="#A9C48C"/>) + path("M28 34v18M32 34v22M38 34v18", stroke: STEM)
          def floats_upright = path("M4 40q7-5 14 0t14 0 14 0 14 0", stroke: WATER, width: 2.4) + stem("M26 62V10M38 62V16") + leaf(26, 18, -100, length: 16, width: 12) + leaf(38, 22, -70, length: 16, width: 12)
        end
      end
    end
  end
end
