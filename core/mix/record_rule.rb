# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What a record of herbicide must say, by when, and how long it is kept (knowledge/records.yml).
      RecordRule = Value.define(:key, :label, :text, :applies, :notices, :needs, :spot, :write_within_days, :keep_years,
                                :source)

      # A rule against one ApplicationRecord.
      class RecordRule
        # What each fact is, in words.
        FACTS = { product: "the product", registration: "its registration number", amount: "how much of it",
                  mix: "how much ready mix", done_on: "the day", started: "when it began", ended: "when it ended",
                  place: "the place", area: "the size of the area", site: "the site", target: "what it was for",
                  applicator: "the applicator", certification: "the applicator's certification number",
                  category: "what they are licensed for", expiry: "until when they are licensed",
                  weather: "the weather at start, middle and end", equipment: "the equipment",
                  left_over: "what was left over" }.freeze

        # Facts that are missing: [Symbol], in the order of the rule; a licence that had run out counts as missing.
        def missing(record)
          asked(record).select { |fact| record[fact].to_s.empty? || (fact == :expiry && record.expired?) }
        end

        # Is all of the day's work with it so small that less is asked for?
        def spot?(record)
          all = record.day_area || record.area
          !spot.nil? && !record.area.nil? && all < spot["below_m2"]
        end

        # The last day on which it may be made.
        def due_on(record) = record.done_on + write_within_days

        # The last day on which it must still be there: as many years on, the day after where that year has no such day.
        def keep_until(record)
          kept = record.done_on >> (12 * keep_years)
          kept.day == record.done_on.day ? kept : kept + 1
        end

        # Was it made in time?
        def late?(record) = record.written_on > due_on(record)

        private

        def asked(record) = (spot?(record) ? spot["needs"] : needs).map(&:to_sym)
      end
    end
  end
end
