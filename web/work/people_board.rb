# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # The group's people with what they have done, and names in older records that are nobody's yet.
      class PeopleBoard
        # licence: words, nil where there is none; short: is that a warning? hours, days: of this year; pace: the Factor
        # of their own records, nil for too few.
        Row = Core::Value.define(:person, :licence, :short, :hours, :days, :pace)
        SOON = 45 # days before a licence ends

        def initialize(today)
          @today = today
        end

        def rows = @rows ||= Store::Person.live.here.named.all.map { |person| row(person) }

        # [[Person, words]] whose licence has ended or soon will.
        def licences
          Store::Person.live.here.named.exclude(licence_expires_on: nil).all.filter_map do |person|
            said, short = licence(person)
            [person, said] if short
          end
        end

        # Of each method with records: [[Removal, Factor of a crew, Factor of volunteers]], the most records first.
        def paces
          pace = Store::OwnPace.of
          pace.cells.map(&:first).uniq.map do |key|
            [Core::Knowledge.shipped.removal(key), pace.of(key), pace.of(key, volunteers: true)]
          end.sort_by { |removal, factor, _| [-factor.count, removal.name] }
        end

        def unmatched = @unmatched ||= Store::Person.unmatched.first(30)
        def words(list, keys) = keys.map { |key| Core::Knowledge.shipped.crew[list].dig(key, "text") || key }

        def row(person)
          licence, short = licence(person)
          worked = person.records
          year = worked.where(done_on: Date.new(@today.year, 1, 1)..@today)
          Row.new(person:, licence:, short:, hours: year.sum(:hours).to_f, days: year.distinct.select(:done_on).count,
                  pace: pace(worked))
        end

        private

        def licence(person)
          return unless (last = person.licence_expires_on)

          said = Words.full_day(last)
          return ["not licensed since #{said}", true] if last < @today

          last - @today <= SOON ? ["licensed only until #{said}", true] : ["licensed until #{said}", false]
        end

        def pace(records)
          pace = Store::OwnPace.of(records)
          pace.of(nil) if pace.cells.any? && records.count >= Store::OwnPace::LEAST
        end
      end
    end
  end
end
