# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FitHours = Rule.new(
          :fit_hours,
          about: :any, looks: %i[day hours],
          source: "common_practice",
          says: "Work is done where at least two hours of the day are fit for it."
        ) do |now, removal|
          kept = now.kept_off(removal).first or next
          next if %i[wind heat above_freezing rain_soon wet_or_frozen_bark].any? do |key| # one that says it better
            rule = Rule.named(key)
            rule.concerns?(removal) && rule.judge(now, removal)
          end

          what = { dark: "daylight", wind: "wind", gust: "gusts", temperature: "warmth", delta_t: "how dry the air is",
                   raining: "rain", rain_coming: "rain that comes" }[kept.key]
          low, high = kept.limit.is_a?(Hash) ? kept.limit.values_at("low", "high") : [nil, kept.limit]
          over = kept.value && (low.nil? || kept.value > high)
          said = { dark: "there is no daylight", raining: "rain", rain_coming: "rain comes",
                   wet_leaf: "leaves or bark are wet", inversion: "still air holds drift near the ground",
                   delta_t: "the air is too #{over ? "dry" : "damp"}", wind: "wind of {wind:#{kept.value}}",
                   gust: "gusts of {wind:#{kept.value}}", temperature: "{temperature:#{kept.value}}" }.fetch(kept.key)
          wait "No two hours of that day are fit for it: #{kept.unknown ? "#{what} is not known" : said}."
        end
      end
    end
  end
end
