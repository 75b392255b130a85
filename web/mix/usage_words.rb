# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What the mix room says of what was used.
      module UsageWords
        module_function

        # After a day on stubs; nil where it fits or cannot be said.
        def alarm(finding)
          case finding&.kind
          when :short
            "Enough for about #{finding.enough_for} of #{finding.stems} stubs (#{finding.low} to #{finding.high}): " \
            "look for dye once more before you leave."
          when :heavy
            "Enough for about #{finding.enough_for} stubs where #{finding.stems} were counted: drip, or stubs that " \
            "nobody counted."
          end
        end

        # Whose numbers a dose is.
        def usage(usage, units)
          return unless usage&.own?

          "From #{usage.count} records here: #{units.volume(usage.median)} a stem, #{units.volume(usage.low)} to " \
            "#{units.volume(usage.high)} on four days of five."
        end
      end
    end
  end
end
