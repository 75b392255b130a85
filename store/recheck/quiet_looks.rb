# frozen_string_literal: true

module Thistle
  module Store
    # Reading: quiet patches, the chance that each still lives, and what a look at it costs and saves.
    class QuietLooks
      Recheck = Core::Recheck
      MOST = 300 # quiet patches that are reckoned, those looked at longest ago first
      WALK = 0.25 # hours that a look takes at least (memory)
      SEARCHED = 0.6 # hours to search a thousand m² with care (memory)
      CLEAR = 2.0 # hours that a stand takes at least which was found late (memory)
      LEAST_GROWTH = 1.1 # times a year, since what is left alone does not stay as small as it is (memory)
      # One: its presence on the day, the chance, hours of a look, the money that it saves, the day of its next visit.
      Look = Core::Value.define(:patch, :presence, :chance, :hours, :saves, :next_on)

      attr_reader :property

      def initialize(property, today)
        @property, @today = property, today
        @hour = property.rates.hour
      end

      # [Look] of the property's quiet patches, what saves the most first.
      def all
        @all ||= quiet.map { |patch| of(patch) }.sort_by { |look| [-look.saves, look.patch.code] }
      end

      # The Looks to make with so many hours. Raises Core::BadInput (field :hours).
      def chosen(hours)
        candidates = all.map do |one|
          Recheck::LookRound::Candidate.new(id: one.patch.id, hours: one.hours, worth: one.saves)
        end
        ids = Recheck::LookRound.new(candidates, hours).chosen.map(&:id)
        all.select { |one| ids.include?(one.patch.id) }
      end

      # How many quiet patches there are besides.
      def others = [property.live_patches.where(state: "quiet").count - MOST, 0].max

      # The Look of one patch.
      def of(patch)
        presence, hours = patch.presence, hours_of(patch)
        loss = { clearing: clearing_of(patch, hours), growth: growth_of(patch.plant) }
        Look.new(patch:, presence:, chance: presence.chance(@today), hours:, next_on: next_visit(patch),
                 saves: presence.saves(@today, detects: Recheck::Alive::DETECTION, **loss))
      end

      private

      def quiet
        found = property.live_patches.unordered.where(state: "quiet").exclude(plant_key: nil).order(:updated_at)
                        .limit(MOST).eager(:observations, :treatments, :checks, :parent, :absorbed, :tasks).all
        found.each { |patch| patch.associations[:property] = property } # one, so that it works its facts out once
      end

      def hours_of(patch) = [(patch.gross_m2 || 0) / 1000.0 * SEARCHED, WALK].max

      # What it would take to have it quiet again: the work, and the looks of the years in which its seed has to be
      # spent.
      def clearing_of(patch, hours)
        effort = PatchOutlook.new(patch, @today).effort
        again = (patch.years_of(:seed_bank_years) || patch.years_of(:fragment_years) || 1) * hours * @hour
        [effort.cost_to_quiet || effort.cost || 0.0, CLEAR * @hour].max + again
      end

      def growth_of(plant)
        (@growth ||= {})[plant.key] ||= Recheck::Stages.new(plant).growth_rate.clamp(LEAST_GROWTH, 10.0)
      end

      # As its records ask for it: what stands on Recheck, Today and in the calendar.
      def next_visit(patch) = patch.tasks.select { |one| one.open? && one.kind != "planting" }.map(&:due_on).min
    end
  end
end
