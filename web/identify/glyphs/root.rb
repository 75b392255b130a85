# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # What is under the ground.
        module Root
          private

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

          def root_colour_yellow = root("#F0C419")
          def soil = path("M4 18h56", stroke: WOOD, width: 2.4) + stem("M32 18V4") + leaf(32, 14, -30, length: 16) + leaf(32, 14, -150, length: 16)
          def root_form_taproot = soil + path("M26 18C27 38 30 50 32 62C34 50 37 38 38 18z", fill: "#EADBBE") + path("M29 34l-9 5M35 42l8 5")
          def root_form_fibres = soil + (0..6).map { |n| path("M32 18Q#{10 + (n * 7)} 30 #{6 + (n * 9)} #{52 + ((n % 2) * 6)}", stroke: "#8A6B45") }.join
          def root_form_running = soil + path("M4 34C16 30 26 38 32 34S50 30 60 34", stroke: "#EADBBE", width: 6) + path("M14 34v-18M50 32v-16", stroke: STEM, width: 2) + path("M20 37v12M40 36v12M32 38v14")
          def root_form_tubers = soil + path("M32 18C30 28 24 30 20 34M32 18C34 28 40 30 44 34M32 18V38", stroke: "#8A6B45") + [[18, 42], [46, 42], [32, 48]].map { |x, y| %(<ellipse cx="#{x}" cy="#{y}" rx="8" ry="10" fill="#EADBBE"/>) }.join
          def root_form_bulb = soil + path("M32 20C18 28 16 48 32 52C48 48 46 28 32 20z", fill: "#EADBBE") + path("M32 22C26 32 26 44 32 51M32 22C38 32 38 44 32 51M26 52l-4 8M32 53v9M38 52l4 8")
          def root_form_crown = soil + path("M12 18C10 34 22 40 32 40S54 34 52 18z", fill: "#C79A6A") + path("M18 34L8 56M28 40L24 62M38 40l4 22M46 34l10 22", stroke: "#8A6B45", width: 3)
        end
      end
    end
  end
end
