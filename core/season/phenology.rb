# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A plant's phases in a site's year. `shift` moves them all by days, after a phase was seen early or late.
      class Phenology
        Span = Value.define(:phase, :from, :to, :source)
        # What a patch can be in, in order of how far the season is.
        STAGES = %i[dormant leaf flower green_seed ripe_seed].freeze
        LABELS = { dormant: "dormant", leaf: "in leaf", flower: "in flower", green_seed: "green seed",
                   ripe_seed: "ripe seed" }.freeze

        attr_reader :plant, :site, :shift

        def initialize(plant, site, shift: 0)
          @plant, @site, @shift = plant, site, shift
          @spans = {}
        end

        # The same plant with its calendar moved so that it is in `stage` on `date`.
        def seen(stage, date)
          return self if stage == stage_on(date)

          near = [-1, 0, 1].flat_map { |n| spans(site.year(date >> (12 * n))) }.select { |span| span.phase == stage }
          nearest = near.map { |span| date < span.from ? (date - span.from).to_i : (date - span.to).to_i }.min_by(&:abs)
          nearest ? self.class.new(plant, site, shift: shift + nearest) : self
        end

        def spans(year)
          @spans[year.start] ||= plant.phases.map do |row|
            Span.new(phase: row["phase"].to_sym, from: moment(row["from"], year), to: moment(row["to"], year),
                     source: row["source"])
          end
        end

        # All phases on a date.
        def phases_on(date)
          spans(site.year(date)).select { |span| date.between?(span.from, span.to) }.map(&:phase)
        end

        # The furthest phase on a date; :dormant when none.
        def stage_on(date) = phases_on(date).max_by { |phase| STAGES.index(phase) } || :dormant

        # The first day on or after `date` in which the plant is in `phase`, within a year; nil if never.
        def next(phase, date)
          [site.year(date), site.year(date >> 12)].flat_map { |year| spans(year) }
                                                  .select { |span| span.phase == phase && span.to >= date }
                                                  .map { |span| [span.from, date].max }.min
        end

        private

        def moment(row, year)
          anchor = year.date(row["anchor"].to_sym) || year.finish
          edge = %w[season_start season_end].include?(row["anchor"])
          anchor + row.fetch("days", 0) + (edge ? 0 : shift)
        end
      end
    end
  end
end
