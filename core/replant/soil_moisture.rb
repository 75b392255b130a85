# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # What soil moisture a site's rain and texture alone make of it: the soil bucket over the growing seasons of the
      # years behind us. Of a spring, a hollow or a water table it knows nothing.
      class SoilMoisture
        Answer = Value.define(:kind, :dry, :wet, :years)
        DRY, WET = 0.6, 0.5 # shares of the season's days from which ground is called so (memory)

        # The Answer for a Season::Site; kind: "dry", "moist" or "wet"; dry, wet: shares of the days.
        def self.of(site)
          kinds = site.history.flat_map { |first| season(site, first) }
          dry, wet = [%i[dry], %i[wet saturated]].map do |some|
            kinds.count { |kind| some.include?(kind) } / kinds.size.to_f
          end
          kind = if dry >= DRY then "dry"
                 else wet >= WET ? "wet" : "moist"
                 end
          Answer.new(kind:, dry:, wet:, years: site.history.size)
        end

        # The soil's class on each day of a past growing season: from leaf-out to the first frost where there are such
        # marks, else of the whole year.
        def self.season(site, first)
          year = site.year(site.today)
          marks = %i[leaf_out first_frost].map { |mark| year.moment(mark)&.date }
          from, last = marks.all? ? marks.map { |date| (date - year.start).to_i } : [0, 364]
          ((first + from)..(first + last)).map { |date| site.ground(date).kind }
        end
        private_class_method :season
      end
    end
  end
end
