# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # How likely a day can be held: in how many past years that day was fit for a kind of work, and what the forecast
      # says where it reaches.
      module Odds
        # fit, of: years; what: what stood against it most often, a key of Limits#against, nil for nothing.
        Years = Value.define(:fit, :of, :what)

        module_function

        # Years on which a date, as it was, kept within Season::Limits; nil for work that any day will do for.
        def years(site, date, limits)
          return unless limits

          start = Season::Year.start_of(date, site.latitude)
          at = (date - start).to_i
          said = site.history.filter_map { |first| against(site, first, at, limits) }
          most = said.flatten.tally.max_by(&:last)
          Years.new(fit: said.count(&:empty?), of: said.size, what: most&.first)
        end

        def against(site, first, at, limits)
          days, soils = site.past_days(first), site.past_soils(first)
          days[at] && limits.against(days[at], soils[at], days[at + 1]&.rain)
        end
        private_class_method :against
      end
    end
  end
end
