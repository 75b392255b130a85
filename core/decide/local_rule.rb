# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # A rule that a steward added for a property: no such work in a zone, of a plant, or in a season of the year. It
      # can only say no or wait, so it tightens and never loosens.
      # about: a method tag, "herbicide" or "any"; zone: a zone's id, nil for everywhere; plant: a plant's key, nil for
      # all; from, to: "MM-DD" between which it holds, over the new year too, nil for all year.
      LocalRule = Value.define(:id, :about, :zone, :zone_name, :plant, :from, :to, :text, :person, :said_on) do
        def key = :"local_#{id}"
        def concerns?(removal) = Rule.concerns?([about.to_sym], removal)
        def looks = [(:zones if zone), (:plant if plant), (:date if from)].compact
        def force = :local
        def binding? = false
        def source = "own_records"
        def turns = []

        # A Reason (:no, or :wait in its season) on a Situation that it is about; nil where it says nothing.
        def judge(now, _removal)
          return if plant && now.plant.key != plant
          return if zone && now.zones&.none? { |near| near.id == zone && near.touches? } != false
          return reason(:no) unless from

          reason(:wait) if season?(now.date)
        end

        # The first days of its season and of what comes after, in the years that a span touches.
        def dates(from_on, to_on)
          return [] unless from

          (from_on.year..to_on.year).flat_map { |year| [self.class.day(year, from), self.class.day(year, to) + 1] }
        end

        private

        def reason(kind) = Reason.new(rule: key, kind:, text: "#{text.delete_suffix(".")} (#{person}).", source:)

        def season?(date)
          today = date.strftime("%m-%d")
          from <= to ? today.between?(from, to) : today >= from || today <= to
        end
      end

      # Reads the days that it is given.
      class LocalRule
        # "MM-DD" in a year; 29 February is the 28th where there is none.
        def self.day(year, text)
          month, day = text.split("-").map(&:to_i)
          Date.valid_date?(year, month, day) ? Date.new(year, month, day) : Date.new(year, month, -1)
        end
      end
    end
  end
end
