# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Everything the rules may look at, on one day. Unknown safety answers are nil, and the rules
      # treat nil as a no or a question, never as a yes.
      Situation = Value.define(:date, :stage, :phases, :soil, :day, :next_days, :hours, :season, :climate,
                               *Facts::CARRIED) do
        # An invader that is new to the region, or watched for, and not yet reported.
        def unreported? = new_here && !reported
        # Is the plant at home here?
        def at_home? = belongs ? belongs == :native : plant.native?
        # At home here, and weeded out all the same where people walk and play, since it harms them.
        def nuisance? = at_home? && plant.invasive? && plant.hazardous?
        # A plant of other regions whose file does not give it here.
        def stranger? = belongs == :elsewhere && !plant.invasive?

        # Is it asked to hold the plant down, and not to kill it?
        def holding? = Facts.holding?(purpose, aim)
        def seeding? = stage == :ripe_seed
        def in_leaf? = phases.include?(:leaf)
        def in_water? = plant.aquatic? || water_m&.zero?
        def school(question) = (schools || School.defaults).fetch(question)

        # Close enough for spray or drip to reach water; not measured counts as close.
        def near_water? = in_water? || water_m.nil? || water_m < Facts::NEAR_WATER_M

        # What the method asks of the weather, the product's label before it; nil for work that any day will do for.
        def limits(removal) = Season::Limits.of(removal)&.then { |limits| limits.under(labels&.[](limits.key)) }

        # What keeps a method off the day's weather, [Season::Fit::Against]: by the hours ahead, as every page judges
        # them; a day that is past by its own figures; none where nothing is known.
        def kept_off(removal)
          limits = limits(removal) or return []
          return hours.kept_off(limits) if hours

          day ? limits.of_day(day, next_days&.last&.rain) : []
        end

        # The first of it that is of some keys, or nil.
        def kept_off_by(removal, *keys) = kept_off(removal).find { |against| keys.include?(against.key) }

        # Is a product labelled for water at hand for a method? nil where nobody said.
        def for_water?(removal)
          aquatic_label.is_a?(Hash) ? aquatic_label[Season::Limits.of(removal)&.key] : aquatic_label
        end

        def anchor(key) = season.date(key)
      end

      # Which facts change from day to day, and whether anyone looked at one.
      class Situation
        SAP_DAYS = 21 # by which sap goes before the buds (memory)
        DATED = %i[date stage phases soil day next_days hours season].freeze

        # Does sap rise in stems? From some thawing weeks before buds swell until full leaf; those of the coming year,
        # too.
        def sap_rising?
          leaf = anchor(:full_leaf) or return false
          swell = anchor(:bud_swell) || leaf
          [0, 12].any? { |months| date.between?((swell >> months) - SAP_DAYS, (leaf >> months) - 1) }
        end

        # The same situation, which notes whether anyone looked at a fact that changes from day to day.
        class Watched < self
          DATED.each do |fact|
            define_method(fact) do
              Thread.current[:looked_at_dated] = true
              super()
            end
          end
        end

        # [the block's answer, whether it looked at a fact that changes from day to day in a watched situation].
        def self.watching
          Thread.current[:looked_at_dated] = false
          answer = yield
          [answer, Thread.current[:looked_at_dated]]
        end

        def watched = Watched.new(**to_h)
      end
    end
  end
end
