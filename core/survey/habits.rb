# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # What a country usually has (knowledge/homes.yml), or a steward says otherwise: coin, what an hour costs (nil for
      # not known), paper ("a4", "letter"), whom to call, the grid of its maps, the key of its rule for records of
      # herbicide, what labels call their number, how they say what harms and where what to wear, what a date begins
      # with (Dates::FIRST).
      Habits = Value.define(:coin, :hour, :emergency, :rule, :register, :hazard, :clothing,
                            paper: "a4", grid: "utm", dates: "day") do
        # said: {fact => what a steward says}, nil for nothing.
        def self.of(country, said = {})
          new(**Knowledge.shipped.homes.fetch(country, {}).transform_keys(&:to_sym).slice(*members), **said.compact)
        end
      end

      # What may be chosen.
      class Habits
        PAPERS = { "a4" => "A4", "letter" => "letter" }.freeze
        GRIDS = { "utm" => "UTM", "british" => "British national grid", "irish" => "Irish grid",
                  "nztm" => "New Zealand transverse Mercator" }.freeze
        LITRE = 0.16 # of what an hour costs, a litre of ready mix (memory)

        def litre = hour && (hour * LITRE).round(2)
      end
    end
  end
end
