# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # The months in which something may be expected to be in flower at a site.
      module BloomSeason
        WARM = 6.0 # °C of a month's mean, from which plants flower (memory)

        module_function

        # Months, 1 to 12, in their order from the end of winter, for a Season::Site; all of them where none is cold.
        def months(site)
          warm = (1..12).select { |month| site.typical.months[month - 1].mean >= WARM }
          first = warm.find { |month| !warm.include?(((month - 2) % 12) + 1) }
          first ||= Season::Year.start_of(site.today, site.latitude).month
          (0...12).map { |n| ((first - 1 + n) % 12) + 1 } & warm
        end
      end
    end
  end
end
