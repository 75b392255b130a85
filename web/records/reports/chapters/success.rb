# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # How success is measured, and what was measured so far.
          class Success < Chapter
            TITLE = "How success is measured"
            MEASURES = [
              "Control: the share of treated stems that is dead at the check, with its 95 % range.",
              "Clean checks: visits at which nothing alive was found, at a time when it would have shown.",
              "Ground: how much the patches cover at the end of each year.",
              "Natives: how many of the planted live, and what came by itself."
            ].freeze
            private_constant :MEASURES

            private

            def write(part)
              part.list(MEASURES.map { |words| [words, "common_practice"] })
              part.table(["Plant", "Method", "Stems", "Control, 95 % range", "Planned"], learned, numbers: [2])
              due = visits
              return unless due.positive?

              part.text("#{Words.count(due, "visit")} are on the list for the next twelve months.",
                        source: "own_records")
            end

            def learned
              tried = Store::Review.new(property, (today << 60)..today, today).tried
              tried.first(20).map do |one|
                planned = one.planned.values_at("low", "high").uniq.join(" to ")
                [one.plant.name, one.removal.name, one.control.treated,
                 "#{one.control.percent.round} % (#{one.control.low.round} to #{one.control.high.round})",
                 "#{planned} %"]
              end
            end

            def visits
              Store::Task.where(done_on: nil, dropped_at: nil, due_on: today..(today >> 12))
                         .where(patch_id: property.live_patches.unordered.select(:id)).count
            end
          end
        end
      end
    end
  end
end
