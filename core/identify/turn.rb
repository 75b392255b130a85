# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Where a site's year stands on a day: bare, or turning at its first or last green.
      class Turn
        def initialize(site, date)
          @year, @date = site.year(date), date
        end

        # Is the year right for a character that shows only then (Character#shows)?
        def shows?(shows)
          case shows
          when "winter" then bare?
          when "turn" then turning?
          else true
          end
        end

        private

        def bare?
          first, last = @year.date(:leaf_out), @year.date(:third_frost)
          !(first && last && @date.between?(first - 10, last + 14))
        end

        def turning?
          spring, summer, autumn = @year.date(:bud_swell), @year.date(:full_leaf), @year.date(:first_frost)
          (spring && summer && @date.between?(spring - 21, summer - 7)) ||
            (autumn && @date.between?(autumn - 28, autumn + 35))
        end
      end
    end
  end
end
