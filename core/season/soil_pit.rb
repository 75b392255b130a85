# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Soil from a pit of a spade's depth: its texture by feel (Thien 1979, recalled), to the textures of
      # knowledge/soils.yml, and whether water leaves it.
      class SoilPit
        SOURCE = "thien_1979"
        BALL = { "no" => "no, it falls apart", "yes" => "yes, it stays a ball" }.freeze
        RIBBON = { "none" => "none", "short" => "under 2.5 cm", "middle" => "2.5 to 5 cm",
                   "long" => "over 5 cm" }.freeze
        RIBBON_US = { **RIBBON, "short" => "under 1 in", "middle" => "1 to 2 in", "long" => "over 2 in" }.freeze
        FEEL = { "gritty" => "gritty", "smooth" => "smooth like flour", "neither" => "neither" }.freeze
        BY_FEEL = { "short" => { "gritty" => "sandy_loam", "smooth" => "silt_loam", "neither" => "loam" },
                    "middle" => Hash.new("clay_loam"), "long" => Hash.new("clay") }.freeze
        SIGNS = { "water" => "Water stands in the pit a day after rain",
                  "mottles" => "Grey or rusty spots within 30 cm (1 ft)",
                  "smell" => "It smells of bad eggs" }.freeze

        attr_reader :told

        # told: {"ball" => …, "ribbon" => …, "feel" => …, "water"/"mottles"/"smell" => "yes" or "no"}; what is none of
        # the answers counts as not said.
        def initialize(told)
          answers = { "ball" => BALL, "ribbon" => RIBBON, "feel" => FEEL, **SIGNS.transform_values { BALL } }
          @told = told.select { |key, value| answers[key]&.key?(value) }
        end

        # A key of soils.yml; nil while an answer that it hangs on is missing.
        def texture
          return "sand" if told["ball"] == "no"
          return unless told["ball"] && told["ribbon"]
          return "loamy_sand" if told["ribbon"] == "none"
          return if told["ribbon"] == "short" && told["feel"].nil?

          BY_FEEL.fetch(told["ribbon"])[told["feel"]]
        end

        # Does water leave it badly? nil while no sign says yes and one was not looked for.
        def poorly_drained
          return true if SIGNS.keys.any? { |sign| told[sign] == "yes" }

          false if SIGNS.keys.all? { |sign| told[sign] }
        end
      end
    end
  end
end
