# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What became of a plan: what lives of each native, how many go in again, how the cover stands against its year.
      class EstablishmentBoard
        Row = Core::Value.define(:planting, :native, :planted, :count, :survival, :living, :again, :enough)

        attr_reader :plan

        def initialize(plan, today)
          @plan, @today = plan, today
        end

        def patch = plan.patch

        # [Row] of what is in the ground.
        def rows
          @rows ||= plan.plantings.select(&:done_on).map { |planting| row(planting) }
        end

        def waiting = plan.plantings.reject(&:done_on)

        # The growing season it is in, from 1; nil before anything is planted.
        def year
          first = plan.plantings.filter_map(&:done_on).min or return
          [((@today - first).to_i / 365) + 1, 1].max
        end

        def expected = year && Core::Replant::Establishment.expected(plan.kind, year)

        # The latest count of cover, weighed against its year; nil where none was counted.
        def cover
          count = counts.select { |one| one.percents.any? }.max_by { |one| [one.counted_on, one.id] } or return
          first = plan.plantings.filter_map(&:done_on).min || count.counted_on
          then_year = [((count.counted_on - first).to_i / 365) + 1, 1].max
          [count, Core::Replant::Establishment.cover(count.percents, kind: plan.kind, year: then_year)]
        end

        def counts = @counts ||= plan.plantings.flat_map(&:counts)
        def water = @water ||= Store::WaterOwed.new([patch.property], @today).of(patch)

        # Open visits of the patch, the next first.
        def visits = @visits ||= Store::Task.undone.where(patch_id: patch.id).order(:due_on).limit(6).all

        # Until when the invader's seed bank sends seedlings.
        def seed_until
          years = patch.plant&.seed_bank_years or return
          last = patch.treatments.map(&:done_on).max or return
          last >> (12 * years["likely"]).round
        end

        private

        def learned = @learned ||= Store::SurvivorCount.learned

        def row(planting)
          planted = planting.in_ground
          return Row.new(planting:, native: planting.native) unless planted&.positive?

          count = planting.counts.reject { |one| one.alive.nil? }.last
          survival = survival(planting, count)
          Row.new(planting:, native: planting.native, planted:, count:, survival:, living: planted * survival.mean,
                  again: Core::Replant::Establishment.again(planted, survival),
                  enough: Core::Replant::Establishment.enough(planted))
        end

        # Its own count, over what others of its kind and season taught.
        def survival(planting, count)
          own = count ? [count.alive, count.looked_at] : [0, 0]
          all = learned.fetch([planting.native_key, planting.season], [0, 0])
          others = all.zip(own).map { |a, b| [a - b, 0].max }
          stock = Core::Replant::Stock.of(planting.native)
          Core::Replant::Establishment.survival(stock, alive: own[0], counted: own[1], others:)
        end
      end
    end
  end
end
