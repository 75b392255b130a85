# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # Fruit and seed.
        module Fruit
          private

          def fruit_berry = stem("M32 10C32 22 22 26 22 34M32 10C32 22 42 26 42 34") + ring(22, 42, 9, BERRY) + ring(42, 42, 9, BERRY)

          def fruit_capsule
            path("M32 8V22", stroke: STEM,
                             width: 2.6) + ring(32, 38, 12,
                                                BERRY) + path(
                                                  "M32 22C18 22 10 32 12 46C18 42 22 34 32 22zM32 22C46 22 54 32 52 46C46 42 42 34 32 22zM32 22l0 14", fill: "#E9B949"
                                                )
          end

          def fruit_wing = path("M12 40C20 18 38 12 54 16C50 34 36 46 18 46z", fill: PALE) + ring(32, 31, 5, WOOD)

          def fruit_spiny
            ring(32, 34, 13, WOOD) + (0...8).map { |n| %(<path transform="rotate(#{n * 45} 32 34)" d="M29 22l3-14 3 14z" fill="#{INK}"/>) }.join
          end

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

          def fruit_raspberry = stem("M32 4V16") + [[32, 24], [24, 28], [40, 28], [20, 38], [32, 36], [44, 38], [25, 48], [39, 48], [32, 56]].map { |x, y| ring(x, y, 6.5, BERRY) }.join
          def fruit_hip = stem("M32 4V18") + path("M32 18C16 18 14 40 24 48L32 54L40 48C50 40 48 18 32 18z", fill: BERRY) + path("M26 50l-4 8M32 54v8M38 50l4 8")
          def fruit_apple = stem("M34 4C32 10 32 14 32 18") + ring(32, 38, 19, "#C98F5A") + path("M26 20q6 6 12 0") + ring(26, 34, 1.4, PALE) + ring(38, 40, 1.4, PALE)
          def fruit_fluff = %(<ellipse cx="32" cy="54" rx="3.500" ry="7" fill="#{WOOD}"/>) + (0..8).map { |n| path("M32 46L#{8 + (n * 6)} #{22 - ((n > 4 ? 8 - n : n) * 3)}", stroke: "#8b8778", width: 1.2) }.join
          def fruit_grain = stem("M32 62V10") + [14, 24, 34, 44].map { |y| %(<ellipse cx="26" cy="#{y}" rx="4" ry="7" transform="rotate(-25 26 #{y})" fill="#{WOOD}"/><ellipse cx="38" cy="#{y + 4}" rx="4" ry="7" transform="rotate(25 38 #{y + 4})" fill="#{WOOD}"/>) }.join
          def fruit_nut = stem("M32 4V14") + ring(32, 36, 20, "#9DB36E") + path("M20 28q12 8 24 0M18 40q14 8 28 0", width: 1.2)
          def fruit_mustard = stem("M32 62V8") + [46, 34, 22].map { |y| path("M32 #{y}L54 #{y - 16}l2 2L33 #{y + 3}zM32 #{y}L10 #{y - 16}l-2 2L31 #{y + 3}z", fill: LEAF) }.join
          def pod(fill: LEAF) = path("M8 52C18 56 46 44 56 12C60 10 58 4 54 6C40 6 12 26 6 46C4 50 6 52 8 52z", fill:)
          def pod_skin_smooth = pod + path("M14 44C26 40 40 28 48 14", stroke: "#FFFFFF", width: 3)
          def pod_skin_hairy = pod + (0..6).map { |n| path("M#{14 + (n * 6)} #{36 - (n * 4)}l-5-6M#{20 + (n * 5)} #{49 - (n * 5)}l4 6", width: 1.2) }.join
          def pod_skin_woolly = %(<ellipse cx="32" cy="32" rx="26" ry="15" transform="rotate(-35 32 32)" fill="#F3F0E6"/>) + [[18, 42], [26, 34], [34, 30], [42, 22], [26, 44], [38, 38], [46, 30]].map { |x, y| path("M#{x} #{y}q3-5 6 0q-3 5-6 0", width: 1.2) }.join
          def fruit_colour(state) = fruit_berry.gsub(BERRY, COLOURS.fetch(state)) + (state == "speckled" ? [[19, 39], [25, 44], [20, 46], [39, 39], [45, 44], [40, 46]].map { |x, y| ring(x, y, 1.6, "#FFFFFF") }.join : "")
        end
      end
    end
  end
end
