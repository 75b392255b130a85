# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # Stems, thorns, twigs cut and scratched, bark.
        module Stem
          private

          def thorns_none = stem + leaf(32, 44, -28) + leaf(32, 26, -152)
          def thorns_single = stem + [48, 34, 20].map { |y| path("M33 #{y}l15-4-14 8z", fill: INK) }.join
          def thorns_three = stem + [46, 24].map { |y| path("M32 #{y}l16-6-14 9zM32 #{y}l-16-6 14 9zM31 #{y}l1-15 2 15z", fill: INK) }.join
          def pith_hollow = sliced_twig(INK)
          def pith_white = sliced_twig("#FFFFFF")
          def pith_brown = sliced_twig("#8A5A2E")
          def inner_wood_yellow = scratched("#F0C419")
          def inner_wood_pale = scratched("#E4E9C8")
          def scratched(fill) = %(<rect x="20" y="4" width="24" height="56" rx="3" fill="#8F7352"/>) + path("M26 16q6-4 12 0v30q-6 6-12 0z", fill:)

          def stem_section_round = ring(32, 32, 20, LEAF) + ring(32, 32, 14, "#E3EBD2")
          def stem_section_square = path("M14 14h36v36H14z", fill: LEAF) + path("M20 20h24v24H20z", fill: "#E3EBD2")
          def stem_section_triangular = path("M32 10L56 52H8z", fill: LEAF) + path("M32 22L46 46H18z", fill: "#E3EBD2")
          def stem_section_angled = path("M32 10l7 7 10-2 1 10 8 7-8 7-1 10-10-2-7 7-7-7-10 2-1-10-8-7 8-7 1-10 10 2z", fill: LEAF) + ring(32, 32, 11, "#E3EBD2")
          def stem_section_flat = %(<ellipse cx="32" cy="32" rx="26" ry="9" fill="#{LEAF}"/><ellipse cx="32" cy="32" rx="18" ry="4" fill="#E3EBD2"/>)
          def thick(fill = LEAF) = %(<rect x="23" y="2" width="18" height="60" rx="4" fill="#{fill}"/>)
          def sides(&) = [10, 22, 34, 46].map(&).join
          def stem_surface_smooth = thick + path("M28 6v52", stroke: "#FFFFFF", width: 2.4)
          def stem_surface_hairy = thick + (0..9).map { |n| path("M23 #{6 + (n * 6)}h-8M41 #{6 + (n * 6)}h8", width: 1) }.join
          def stem_surface_bristly = thick + sides { |y| path("M23 #{y}l-13-3M41 #{y}l13-3M23 #{y + 6}l-11 4M41 #{y + 6}l11 4", width: 2.4) }
          def stem_surface_bloom = thick("#DCE4E6") + path("M28 10v10M34 24v12M29 40v14", stroke: "#FFFFFF", width: 4)
          def stem_surface_rough = thick + sides { |y| path("M26 #{y}l2-3 2 3M33 #{y + 6}l2-3 2 3", fill: INK) }
          def stem_tint(state) = thick({ "green" => LEAF, "red" => "#B65A52", "spotted" => LEAF, "brown" => WOOD }.fetch(state)) + (state == "spotted" ? [[28, 10], [36, 20], [28, 30], [35, 42], [29, 53], [37, 8], [37, 32]].map { |x, y| ring(x, y, 2.6, "#6B3A63") }.join : "")
          def stem_core_solid = path("M8 24h40v16H8z", fill: LEAF) + %(<ellipse cx="48" cy="32" rx="6" ry="8" fill="#E3EBD2"/>)
          def stem_core_hollow = path("M8 24h40v16H8z", fill: LEAF) + %(<ellipse cx="48" cy="32" rx="6" ry="8" fill="#E3EBD2"/><ellipse cx="48" cy="32" rx="4" ry="5.500" fill="#{INK}"/>)
          def stem_core_jointed = stem_core_hollow + path("M20 22v20M34 22v20", width: 3)
          def nodes_plain = thick + leaf(41, 30, -30, length: 18)
          def nodes_swollen = thick + %(<ellipse cx="32" cy="32" rx="15" ry="8" fill="#A9C48C"/>) + leaf(45, 30, -30, length: 16)
          def nodes_rooting = path("M4 26h56", stroke: STEM, width: 5) + path("M18 28v20M18 34l-6 10M18 34l6 10M44 28v20M44 34l-6 10M44 34l6 10") + leaf(18, 24, -60, length: 16) + leaf(44, 24, -120, length: 16)
          def thorns_paired = stem + [46, 24].map { |y| path("M33 #{y}l15-5-13 9zM31 #{y}l-15-5 13 9z", fill: INK) + leaf(32, y - 4, -70, length: 13) }.join
          def thorns_hooked = stem + [50, 36, 22].map { |y| path("M33 #{y - 4}c10-2 12 4 10 10c-3-5-6-4-10-1z", fill: INK) }.join
          def thorns_bristles = stem + (0..11).map { |n| path("M33 #{8 + (n * 4.4)}l11-3M31 #{10 + (n * 4.4)}l-11-3", stroke: "#B4412A", width: 1.3) }.join
          def thorns_tip = stem("M32 60V30") + path("M29.500 32L32 4l2.500 28z", fill: INK) + leaf(32, 52, -28) + leaf(32, 42, -152)
          def thorns_branched = stem + [46, 22].map { |y| path("M33 #{y}l24-8-22 13zM41 #{y - 4}l6-12 1 11zM45 #{y - 2}l9 8-12-5z", fill: INK) }.join
          def thorns_winged = stem + path("M33 60l9-7-9-5 11-7-11-5 10-7-10-5 9-7-9-5V6M31 60l-9-7 9-5-11-7 11-5-10-7 10-5-9-7 9-5V6", fill: LEAF)
          def winter_twig = path("M32 62V26", stroke: WOOD, width: 8)
          def bud_scales = winter_twig + path("M32 6C22 16 22 28 32 32C42 28 42 16 32 6z", fill: BERRY) + path("M24 22q8 6 16 0M26 15q6 4 12 0")
          def bud_sharp = winter_twig + path("M32 0C27 14 26 24 28 30h8C38 24 37 14 32 0z", fill: BERRY) + path("M27 22l5 4 5-4")
          def bud_fat = winter_twig + ring(32, 20, 13, "#7E9A55") + path("M22 18q10 8 20 0M32 8v9")
          def bud_woolly = winter_twig + %(<ellipse cx="32" cy="20" rx="11" ry="14" fill="#D9D3C4"/>) + (0..6).map { |n| path("M#{22 + (n * 3.4)} #{14 + ((n % 3) * 6)}l-3-6", width: 1.1) }.join
          def bud_naked = winter_twig + leaf(31, 30, -105, length: 26, width: 8, fill: "#B79A72") + leaf(33, 30, -75, length: 26, width: 8, fill: "#B79A72")
          def bud_tiny = winter_twig + path("M32 20V4", stroke: WOOD, width: 8) + ring(37, 30, 2.6, INK) + path("M36 36q4 3 4-3")
          def pith_chambered = path("M6 20h52v24H6z", fill: WOOD) + path("M6 27h52v10H6z", fill: "#8A5A2E") + path("M14 27v10M22 27v10M30 27v10M38 27v10M46 27v10", stroke: PALE, width: 2)
          def inner_wood_orange = scratched("#E2791B")
          def trunk(fill = "#B7A489") = %(<rect x="14" y="2" width="36" height="60" fill="#{fill}"/>)
          def bark_smooth = trunk("#C4B8A4") + path("M22 12v14M40 34v14", stroke: "#E7DFD0", width: 3)
          def bark_dotted = trunk + [10, 20, 32, 42, 54].map { |y| path("M20 #{y}h8M34 #{y + 4}h9", stroke: PALE, width: 2.6) }.join
          def bark_furrowed = trunk("#8F7352") + path("M22 2c4 14-4 20 0 32s-4 18 0 28M32 2c-4 16 4 24 0 34s4 16 0 26M42 2c4 12-4 22 0 32s-4 20 0 28", width: 2.6)
          def bark_shaggy = trunk + path("M20 2v22l-7 8M28 10v30l-5 10M38 2v26l7 9M44 30v20l6 8M32 36v18l-4 8", width: 2.2)
          def bark_peeling = trunk + path("M18 14c10-4 18 2 12 12c8-2 10 6 4 10l-12-2zM34 40c8-2 14 4 10 12l-10 2z", fill: PALE)
          def bark_winged = %(<rect x="28" y="2" width="8" height="60" fill="#7E9A5C"/>) + path("M28 6C12 10 12 26 28 30M36 6C52 10 52 26 36 30M28 34C12 38 12 54 28 58M36 34C52 38 52 54 36 58", fill: WOOD)
          def twig(state) = path("M14 60C20 40 30 24 46 6", stroke: TWIGS.fetch(state), width: 7) + path("M26 36l10 2M36 20l-10-4", stroke: TWIGS.fetch(state), width: 4) + (state == "velvet" ? (0..7).map { |n| path("M#{14 + (n * 4)} #{52 - (n * 6)}l-7-3M#{20 + (n * 4)} #{54 - (n * 6)}l7 2", width: 1) }.join : "")
          def branch = %(<rect x="16" y="2" width="32" height="60" fill="#{WOOD}"/>)
          def leaf_scar_small = branch + path("M26 36q6 5 12 0q-6-3-12 0z", fill: PALE) + path("M28 32q4-10 8 0z", fill: "#8A5A2E")
          def leaf_scar_heart = branch + path("M32 50C20 42 16 30 22 26C27 23 31 27 32 31C33 27 37 23 42 26C48 30 44 42 32 50z", fill: PALE) + [[26, 32], [32, 42], [38, 32]].map { |x, y| ring(x, y, 1.6, INK) }.join
          def leaf_scar_lobed = branch + path("M32 50c-4-2-4-6-4-8c-6 2-12-4-8-12c4-4 8-2 12 2c4-4 8-6 12-2c4 8-2 14-8 12c0 2 0 6-4 8z", fill: PALE) + [[25, 33], [32, 45], [39, 33]].map { |x, y| ring(x, y, 1.8, INK) }.join
          def leaf_scar_round = branch + ring(32, 34, 11, PALE) + ring(32, 33, 4, "#8A5A2E")
        end
      end
    end
  end
end
