# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # One person's hours between two days, each with its record: for the person, or for whoever asks them for it.
        class OwnHours
          MOST = 1000 # records that are listed

          # properties: those whose records count.
          def initialize(person, properties, range)
            @person, @range = person, range
            @names = properties.to_h { |one| [one.id, one.name] }
          end

          def title = "Hours of #{@person.name}"
          def subtitle = "#{Words.full_day(@range.first)} to #{Words.full_day(@range.last)}"
          def parts = @parts ||= [sums, days].reject(&:empty?)

          private

          def works
            @works ||= @person.records.where(done_on: @range, patch_id: Store::Patch.live.unordered.select(:id))
                              .order(:done_on, :id).eager(:patch).all
                              .select { |work| @names.key?(work.patch.property_id) }
          end

          def sums
            Part.new("sums", "In all") do |part|
              part.figures([[Words.hours(works.sum { |work| work.hours.to_f }) || "0", "hours", nil],
                            [works.map(&:done_on).uniq.size.to_s, "days", nil],
                            [works.map(&:patch_id).uniq.size.to_s, "patches", nil]])
              by = works.group_by { |work| work.patch.property_id }
              part.table(%w[Property Hours], by.map do |id, some|
                [@names[id], Words.hours(some.sum { |work| work.hours.to_f })]
              end, numbers: [1])
            end
          end

          def days
            Part.new("days", "Day by day") do |part|
              shown = works.last(MOST)
              part.table(%w[Day Property Patch Work Hours], shown.map do |work|
                [work.done_on.iso8601, @names[work.patch.property_id], Words.patch_title(work.patch), work.removal.name,
                 Words.hours(work.hours)]
              end, numbers: [4], hrefs: shown.map(&:amend_address))
              part.text("Nothing is on record in these days.") if works.empty?
              part.text("The last #{MOST} are listed.") if works.size > MOST
            end
          end
        end
      end
    end
  end
end
