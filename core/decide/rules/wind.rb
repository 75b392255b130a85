# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Wind = Rule.new(
          :wind,
          about: :foliar, looks: %i[day hours],
          source: "memory", force: :legal,
          says: "No leaf spray outside the label’s range of wind."
        ) do |now, removal|
          against = now.kept_off_by(removal, :wind, :gust) or next
          limits = now.limits(removal)
          low, high = limits.wind.values_at("low", "high")
          word = limits.labelled ? "The label asks for" : "The label's range decides;"
          usual = "{wind:#{low}} to {wind:#{high}}#{" is usual" unless limits.labelled}"
          said = "{wind:#{against.value}}"
          if against.unknown then wait "How strong is the wind? It was not measured here. #{word} #{usual}."
          elsif against.key == :gust then wait "Gusts of #{said} drift spray. #{word} #{usual}."
          elsif against.value < low then wait "Wind of #{said}: in still air fine drops drift. #{word} #{usual}."
          else wait "Wind of #{said} drifts spray. #{word} #{usual}."
          end
        end
      end
    end
  end
end
