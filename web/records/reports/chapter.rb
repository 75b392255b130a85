# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # A chapter of the management plan: a class says its title and writes its Part from the Land. What a person
        # wrote for it stands at its end.
        class Chapter
          CODES = 8 # patches that are named in one line

          # plan: ManagementPlan.
          def initialize(plan)
            @plan, @land = plan, plan.land
          end

          def self.key = name.split("::").last.gsub(/(?<=[a-z])([A-Z])/, '_\1').downcase
          def self.title = self::TITLE

          # The Part; empty where the land has nothing of it and nobody wrote anything.
          def part
            Part.new(self.class.key, self.class.title) do |part|
              write(part)
              note = @plan.notes[self.class.key]
              part.note(note) if note
            end
          end

          private

          def units = @land.units
          def property = @land.property
          def today = @land.today
          def library = Core::Knowledge.shipped
          def said = @said ||= Decide::Words.new(property, today)
          def full_day(date) = Words.full_day(date)
          def patches(number) = Words.count(number, "patch", "patches")

          # "Q-01, Q-02 and 4 more"
          def codes(candidates)
            names = candidates.map(&:code).sort
            return Words.listed(names) if names.size <= CODES

            "#{names.first(CODES).join(", ")} and #{names.size - CODES} more"
          end

          # When those of some patches may begin that wait; "" where none does.
          def opens(some)
            waiting = some.map(&:verdict).select(&:wait?)
            return "" if waiting.empty?

            first = waiting.map(&:until).min
            waiting.size == some.size ? "From #{full_day(first)}." : "Some wait until #{full_day(first)}."
          end

          # "6 to 18", "up to 0.6", of {low, likely, high}; nil where nothing is known.
          def hours(range) = range && spanned(range) { |some| Words.hours(some) }
          def money(range) = range && spanned(range) { |some| said.money(some) }

          def spanned(range)
            low, high = %w[low high].map { |end_| yield range[end_] }
            return high if low == high

            low.start_with?("under") ? "up to #{high}" : "#{low} to #{high}"
          end

          # Lines of text with their sources, each once: [[text, source]].
          def lines(some) = some.map { |line| [units.fill(line.text), line.source] }.uniq

          # Plants that have open patches.
          def open_kinds = @land.kinds.select { |kind| kind.open.any? }
        end
      end
    end
  end
end
