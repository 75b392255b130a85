# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Planning values for one method on one patch: crew hours, mix, money, passes and years until it is quiet.
      class Effort
        # What an hour of crew and a litre of ready mix cost, in the property's own money (memory until someone enters
        # them); pace: times the planned hours that the group takes by its own records, {method => {times: {size =>
        # times}, records:}}.
        Rates = Value.define(:hour, :litre, :currency, :pace)
        ANY = "any" # key of the pace with a method that has no records
        RATES = Rates.new(hour: 25.0, litre: 4.0, currency: "$")

        QUIET = 0.01 # of the stand
        SEARCH = 0.15 # of a first pass: what walking the ground costs however little is left (memory)
        FLUSHED = 0.35 # the same where the seed bank is stirred and every flush is taken (memory)
        STIRRED_YEARS = 4 # to a large drop of the seed bank (common practice)

        # Plants on a square metre of infested ground, and stems of one, where nobody counted (memory: planning only).
        STEMS_PER_PLANT = { shrub: 3.0 }.freeze
        PLANTS_PER_M2 = { herb: 6.0, mat: 0.5, grass: 0.5, aquatic: 4.0, shrub: 0.3, vine: 0.3, tree: 0.2 }.freeze

        DRY = 1.5 # times the work where dry soil holds on to what is levered (memory)

        # soil: of the day, where it is known.
        def initialize(removal, facts, soil: facts.soil)
          @removal, @facts, @soil = removal, facts, soil
        end

        # Person-hours for one pass over the patch; nil when the amount is not known.
        def hours
          return @hours if defined?(@hours)

          amount = { plant: plants, stem: stems, m2: @facts.area_m2, patch: 1 }.fetch(task.per)
          work = amount && [amount * task.at(@facts.size) * ground * (pace || 1.0) / 60.0, task.least_h.to_f].max
          @hours = work && with_before(work + weeding)
        end

        # What an hour goes into.
        def task = @task ||= @removal.task(@facts.plant)

        # Person-hours for the young ones beside, each pulled or, where they are many, the ground hoed.
        def weeding
          return 0.0 unless @facts.seedlings&.positive? && @removal.removes?

          by_hand = @facts.seedlings * SEEDLING.fetch("seconds")
          [by_hand, (@facts.area_m2 || Float::INFINITY) * SEEDLING.fetch("hoed")].min / 3600.0
        end
        SEEDLING = Knowledge.shipped.stages.fetch("seedling").freeze

        # Times the planned hours, by the group's own records; nil where there are too few.
        def pace
          known = own&.fetch(:times) or return
          known[@facts.size] || (known.values.sum / known.size)
        end

        # On how many records that rests; nil for none.
        def pace_records = own&.fetch(:records)

        # {low, likely, high} person-hours for one pass, or nil; and until it is quiet.
        def hours_range = spread(hours)
        def hours_to_quiet_range = spread(hours_to_quiet)

        # {low, likely, high} money for one pass, and until it is quiet: what the hours leave open; nil where the amount
        # is not known or no end is in sight.
        def cost_range = priced(cost, hours_range)
        def cost_to_quiet_range = priced(cost_to_quiet, hours_to_quiet_range)

        # Plants counted, else as many as stems were, else from the area at a planning density: what is pulled or dug.
        def plants = @facts.plants || @facts.stems || by_area

        # Stems counted, else from the plants: what is cut, painted, wetted or girdled one by one. A seedling is one
        # stem.
        def stems
          each = @facts.size == "seedling" ? 1.0 : STEMS_PER_PLANT.fetch(@facts.plant.form, 1.0)
          @facts.stems || plants&.*(each)
        end

        # Ready mix for one pass, litres; 0.0 without herbicide, nil when the amount is not known.
        def litres
          return 0.0 unless @removal.herbicide?

          if @removal.spray_l_per_100m2 then @facts.area_m2 && (@facts.area_m2 * @removal.spray_l_per_100m2 / 100.0)
          else stems && (stems * (@removal.dose_ml[@facts.size] || @removal.dose_ml.values.first || 0) / 1000.0)
          end
        end

        # What is taken for counts that nobody made, in words.
        def taken
          form = @facts.plant.form
          words = []
          words << "{dense:#{PLANTS_PER_M2.fetch(form, 0.5)}} plants" unless @facts.plants || @facts.stems
          if STEMS_PER_PLANT.key?(form) && @facts.stems.nil? && (task.per == :stem || dosed?)
            words << "#{STEMS_PER_PLANT[form].to_i} stems a plant"
          end
          words
        end

        def rates = @facts.rates || RATES

        # Money for one pass; nil when the amount is not known.
        def cost
          return unless hours && litres

          extra = @removal.cost
          (hours * rates.hour) + (litres * rates.litre) + (hours * extra.fetch("per_hour", 0)) + laid(extra)
        end

        # Yearly passes until 1 % of the stand is left; nil: never.
        def passes
          return @passes if defined?(@passes)

          share = 1 - left
          @passes = if share < 0.3 || !@removal.removes? then nil
                    else share >= 1 ? 1 : (Math.log(QUIET) / Math.log(left)).ceil
                    end
        end

        # Years of passes, and no sooner than the seed bank is spent, or dropped by stirring; nil: never.
        def years_to_quiet
          @years_to_quiet ||= passes && [passes, flushed? ? STIRRED_YEARS : bank,
                                         @facts.plant.fragment_years&.fetch("likely").to_i].max
        end

        # Of a first pass, what all years together take: less each year as less is left, but never less than the search.
        def burden
          years = years_to_quiet or return

          floor = flushed? ? FLUSHED : SEARCH
          @burden ||= (0...years).sum { |year| [left**year, floor].max }
        end

        def hours_to_quiet = hours && burden&.*(hours)

        # Litres of mix until it is quiet: what is left is all that is treated.
        def litres_to_quiet
          litres && passes && (litres * (0...passes).sum { |year| left**year })
        end

        # To put methods in order: what is quiet after the fewest hours comes first, then what costs least, then what
        # kills most. Where nothing was counted they are weighed on a like piece of ground.
        def order
          return self.class.new(@removal, @facts.with(area_m2: LIKE_M2), soil: @soil).order unless hours

          [hours_compared&.round(2) || Float::INFINITY, cost_to_quiet&.*(evenly) || Float::INFINITY,
           -@facts.kill(@removal)["likely"]]
        end

        # A group that is slower than planned with what it knows is no quicker with what it never did: how many times
        # the planning value it takes, where it has no records of this.
        def evenly
          any = rates.pace&.fetch(ANY, nil) unless own
          any ? any.fetch(:times).values.first : 1.0
        end

        def other_pace? = (evenly - 1).abs >= 0.05

        # Hours until quiet as methods are compared by them: with the group's pace of other work where it has no records
        # of this.
        def hours_compared = hours_to_quiet&.*(evenly)
        LIKE_M2 = 100.0
        private_constant :LIKE_M2

        # In the property's money, hours and litres together; nil where no end is in sight.
        def cost_to_quiet
          return unless hours && litres && burden

          ((cost - (litres * rates.litre)) * burden) + (litres_to_quiet * rates.litre)
        end

        private

        # Money for what is laid on the ground, or over each stump where the work goes stem by stem.
        def laid(extra)
          task.per == :stem ? stems.to_f * extra.fetch("per_stump", 0) : @facts.area_m2.to_f * extra.fetch("per_m2", 0)
        end

        def spread(likely)
          likely && { "low" => likely * task.range["low"], "likely" => likely, "high" => likely * task.range["high"] }
        end

        def priced(likely, range)
          return unless likely && range

          an_hour = rates.hour + @removal.cost.fetch("per_hour", 0)
          range.transform_values { |some| likely + ((some - range["likely"]) * an_hour) }
        end

        def own = rates.pace&.fetch(@removal.key, nil)

        # The hours of the work that comes before it, too.
        def with_before(hours)
          before = @removal.follows(@facts.plant) or return hours
          other = self.class.new(Knowledge.shipped.removal(before), @facts.with(seedlings: nil), soil: @soil).hours
          other && (hours + other)
        end

        # Is a dose given to each stem?
        def dosed? = @removal.herbicide? && @removal.spray_l_per_100m2.nil?
        def by_area = @facts.area_m2&.*(PLANTS_PER_M2.fetch(@facts.plant.form, 0.5))
        def ground = @soil == :dry && @removal.is?(:levering) ? DRY : 1.0
        def bank = @facts.plant.seed_bank_years&.fetch("likely").to_i

        # Stirring is for seed that would outlast it.
        def flushed? = @facts.stirs? && bank > STIRRED_YEARS

        # The share of a stand that one pass likely leaves.
        def left = @left ||= 1 - (@facts.kill(@removal)["likely"] / 100.0)
      end
    end
  end
end
