# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What is done when, over the coming years: the course of each plant's methods, from the largest of the
          # patches that may begin on the same day.
          class Calendar < Chapter
            TITLE = "Calendar"
            DID = { seed: "Stop seed", mark: "Mark", check: "Check", replant: "Plant", close: "Say whether it is over" }
                  .freeze
            WEEK = 7 # days, up to which a stretch is one day
            ENTRY = Core::Value.define(:on, :to, :words, :plant, :codes)

            private

            def write(part)
              years = entries.group_by { |entry| entry.on.year }.sort
              years.each do |year, some|
                part.heading(year.to_s)
                part.table(%w[When What Plant Patch], some.map { |entry| row(entry) })
              end
              part.text("Dates follow the weather and what the checks find.") if years.any?
            end

            def entries
              last = today >> (12 * @plan.years)
              found = open_kinds.flat_map do |kind|
                @land.ways(kind).flat_map { |removal, some| courses(kind, removal, some) }
              end
              found.select { |entry| entry.on <= last }.uniq.sort_by { |entry| [entry.on, entry.plant, entry.words] }
            end

            # Patches that may begin on the same day share a course.
            def courses(kind, removal, some)
              some.group_by { |one| one.verdict.until }.values.flat_map { |same| course(kind, removal, same) }
            end

            def course(kind, removal, some)
              steps = Core::Decide::Course.new(@land.bench(some.first), removal).steps
              steps.reject { |step| step.kind == :disposal }.map do |step|
                ENTRY.new(on: step.on, to: step.to, words: words(step), plant: kind.plant.name, codes: codes(some))
              end
            end

            def words(step)
              return step.removal.name if step.kind == :treat && step.removal && !step.text.start_with?("Pass")
              return step.text if step.kind == :treat

              "#{DID.fetch(step.kind)}#{": #{step.text}" if %i[check replant].include?(step.kind)}"
            end

            # "12 May", "12 to 30 May" where there is a stretch of days for it.
            def row(entry)
              [days(entry), entry.words, entry.plant, entry.codes]
            end

            # What stays open to the end of the year has no end worth saying.
            def days(entry)
              day, last = Words.day(entry.on), entry.to
              return day unless last && last > entry.on + WEEK

              last >= Date.new(last.year, 12, 31) ? "from #{day}" : "#{day} to #{Words.day(last)}"
            end
          end
        end
      end
    end
  end
end
