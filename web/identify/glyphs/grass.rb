# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # The parts that tell grasses apart.
        module Grass
          private

          def seed_head_brush
            stem("M32 60V46") + %(<rect x="25" y="8" width="14" height="38" rx="7" fill="#C79A7A"/>) + (0..6).map { |n|
              path("M25 #{13 + (n * 5)}l-8-4M39 #{13 + (n * 5)}l8-4")
            }.join
          end

          def seed_head_spikes = stem + [16, 24, 32, 40].map { |y| path("M32 #{y}l12-5-2 8z", fill: WOOD) }.join

          def seed_head_open
            stem("M32 60V20M32 44L14 26M32 44L50 26M32 34L20 14M32 34L44 14") + [[14, 26], [50, 26], [20, 14], [44, 14], [32, 18]].map { |x, y|
              ring(x, y, 3, WOOD)
            }.join
          end

          def culm = path("M24 62V36M40 62V36", stroke: STEM, width: 2) + path("M24 62V34h16v28z", fill: LEAF) + path("M40 36C46 26 50 14 58 4C56 20 52 30 40 40z", fill: LEAF) + path("M28 34V2h8v32z", fill: "#E3EBD2")
          def ligule_membrane = culm + path("M26 36q2-14 7-15t7 15z", fill: "#FFFFFF", stroke: WATER)
          def ligule_hairs = culm + path("M25 36l-2-12M28 36l-1-14M31 36v-15M34 36l1-15M37 36l2-14M40 36l4-11", stroke: "#8A5A2E", width: 1.5)
          def ligule_rim = culm + path("M23 36h18", stroke: "#8A5A2E", width: 3.4)
          def ligule_both = culm + path("M26 36q1-8 7-8t7 8z", fill: "#FFFFFF", stroke: WATER) + path("M27 29l-2-9M30 28l-1-10M33 27v-11M36 28l2-10M39 30l3-9", stroke: "#8A5A2E", width: 1.5)
          def auricles_none = culm
          def auricles_clasping = culm + path("M24 36c-8 2-8 12 0 12M40 36c8 2 8 12 0 12M24 40c6 6 10 6 16 0", stroke: "#4E6B2A", width: 3.4)
          def wide_blade(fill = LEAF) = path("M18 62C16 40 20 20 32 2C44 20 48 40 46 62z", fill:)
          def midrib_plain = wide_blade
          def midrib_white = wide_blade + path("M32 62V10", stroke: "#FFFFFF", width: 5)
          def midrib_aside = wide_blade + path("M38 62C38 42 36 22 33 10", stroke: "#FFFFFF", width: 4)
          def sheath_smooth = culm
          def sheath_hairy = culm + (0..5).map { |n| path("M24 #{38 + (n * 4)}l-8-2M40 #{40 + (n * 4)}l8-2", width: 1.1) }.join
          def blade_feel_smooth = wide_blade + path("M26 50C25 36 28 24 31 16", stroke: "#FFFFFF", width: 3)
          def blade_feel_rough = wide_blade + (0..6).map { |n| path("M#{18 + (n * 0.6)} #{56 - (n * 6)}l-5-3 5-1M#{46 - (n * 0.6)} #{56 - (n * 6)}l5-3-5-1", fill: INK) }.join
          def blade_feel_hairy = wide_blade + (0..7).map { |n| path("M#{22 + ((n % 3) * 8)} #{56 - (n * 5)}l-1-6", width: 1.1) }.join
          def seed_head_plume = stem("M32 62V40") + path("M32 44C18 40 14 26 24 20C18 14 26 4 34 2C44 6 50 16 44 22C52 28 46 42 32 44z", fill: "#D9C3A5") + path("M32 44V10M32 34l-9-7M32 34l9-7M32 24l-6-6M32 24l7-6")
          def seed_head_fingers = stem("M32 62V34") + [-140, -115, -90, -65, -40].map { |a| %(<path transform="translate(32 34) rotate(#{a})" d="M0 0H28" stroke="#8A5A2E" stroke-width="4"/>) }.join
          def seed_head_narrow = stem("M32 62V36") + (0..6).map { |n| path("M32 #{44 - (n * 6)}l5-7-5-3-5 3z", fill: WOOD) }.join
          def seed_head_drooping = path("M20 62C20 30 26 12 40 10C52 10 56 22 56 34", stroke: STEM) + [[36, 12], [44, 12], [50, 18], [54, 26], [56, 34]].map { |x, y| path("M#{x} #{y}q4 8 0 14q-4-6 0-14z", fill: WOOD) }.join
          def seed_head_one_sided = path("M26 62C26 36 28 18 34 4", stroke: STEM) + [46, 36, 26, 16].map { |y| path("M28 #{y}q14-2 16 8q-12 2-16-8z", fill: WOOD) }.join
          def seed_head_tufts = stem("M32 62V26") + (0..10).map { |n| path("M32 26L#{4 + (n * 5.6)} #{18 - ((n > 5 ? 10 - n : n) * 2.4)}", stroke: STEM) }.join + [8, 20, 32, 44, 56].map { |x| ring(x, 14, 3, WOOD) }.join
          def grain(x, y) = %(<ellipse cx="#{x}" cy="#{y}" rx="4" ry="8" fill="#{WOOD}"/>)
          def awns_none = [[20, 44], [32, 38], [44, 44]].map { |x, y| grain(x, y) }.join
          def awns_short = awns_none + path("M20 36v-8M32 30v-8M44 36v-8")
          def awns_long = awns_none + path("M20 36L10 4M32 30V2M44 36L54 4")
        end
      end
    end
  end
end
