# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What a day is good for over many patches: each open patch's best move, sorted into what is closing,
      # what is good today, what waits and for what, and what is stuck until something changes.
      # Patches alike in everything that the rules look at share one answer.
      class Agenda
        Entry = Value.define(:id, :facts, :site)
        Item = Value.define(:id, :group, :verdict, :reason, :seed_on, :until)
        GROUPS = %i[closing good waiting stuck].freeze
        FAR = Date.new(9999)
        CLOSING_DAYS = 28 # ripe seed nearer than this is a deadline
        # What the rules look at, but for the three whose bounds alone matter (Store::Alike draws the same bounds).
        SHARED = (Facts::CARRIED - %i[water_m cover area_m2] + %i[date stage soil book rates kills]).freeze

        # kept: answers of earlier agendas of the same day (Kept), so that a page drawn again is quick.
        def initialize(entries, kept: Kept.new(500))
          @entries, @kept = entries, kept
        end

        # [Item], most pressing first within each group.
        def items = @items ||= self.class.in_order(@entries.map { |entry| item(entry) }).freeze

        # [Item], most pressing first within each group.
        def self.in_order(items) = items.sort_by { |i| [GROUPS.index(i.group), (i.until || FAR).jd, i.id] }

        # {id => [best Verdict, next ripe seed or nil]}, for a like amount of ground.
        def best = @entries.to_h { |entry| [entry.id, best_of(entry)] }

        private

        def item(entry)
          verdict, seed_on = best_of(entry)
          group = group(verdict, seed_on, entry.site.today)
          deadline = { closing: seed_on, good: verdict.closes, waiting: verdict.until }[group]
          Item.new(id: entry.id, group:, verdict:, reason: verdict.deciding.first, seed_on:, until: deadline)
        end

        def group(verdict, seed_on, today)
          if verdict.go? then seed_on && seed_on > today && seed_on - today <= CLOSING_DAYS ? :closing : :good
          else verdict.wait? ? :waiting : :stuck
          end
        end

        def best_of(entry)
          facts = entry.facts
          near = facts.water_m.nil? || facts.water_m < Facts::NEAR_WATER_M
          ground = [near, facts.water_m&.zero?, (facts.cover || 0) > 50, (facts.cover || 0) < 75, facts.cover.nil?]
          alike = SHARED.map { |field| facts[field] }
          @kept.fetch([:agenda, entry.site, ground, alike]) { work_out(facts, entry.site) }
        end

        def work_out(facts, site)
          # Methods are weighed on a like amount of ground, so that patches of any size share the answer.
          best = Bench.new(facts.with(plants: nil, stems: nil, seedlings: nil, area_m2: 100.0), site)
                      .verdicts.min_by { |verdict| rank(verdict, site.today) }
          [best, facts.bears_seed? ? facts.calendar(site).next(:ripe_seed, facts.date) : nil]
        end

        # Go before wait before no; then what takes plants out or frees a tree; then the soonest; then the least work.
        def rank(verdict, today)
          useful = verdict.removal.removes? || verdict.removal.is?(:freeing, :reporting)
          [Bench::ORDER.fetch(verdict.kind), useful ? 0 : 1, ((verdict.until || today) - today).to_i, *verdict.order]
        end
      end
    end
  end
end
