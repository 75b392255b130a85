# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Wind = Rule.new(
          :wind,
          about: :foliar, looks: %i[day],
          source: "memory", force: :legal,
          says: "No leaf spray outside the label’s range of wind."
        ) do |now, removal|
          next unless now.day

          limits = now.limits(removal)
          low, high = limits.wind.values_at("low", "high")
          word = limits.labelled ? "The label asks for" : "The label's range decides;"
          usual = "{wind:#{low}} to {wind:#{high}}#{" is usual" unless limits.labelled}"
          if now.day.wind.nil?
            wait "How strong is the wind? It was not measured here. #{word} #{usual}."
          elsif !now.day.wind.between?(low, high)
            wait "Wind of {wind:#{now.day.wind}} drifts spray. #{word} #{usual}."
          end
        end
      end
    end
  end
end
