# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # Hours and money, with their ranges: the first pass, and until it is quiet.
          class Effort < Chapter
            TITLE = "Hours and money"
            HEADS = ["Plant", "Open patches", "Hours, first pass", "Money, first pass", "Hours until quiet",
                     "Money until quiet", "Years"].freeze

            private

            def write(part)
              kinds = open_kinds
              return if kinds.empty?

              part.table(HEADS, kinds.map { |kind| row(kind.plant.name, kind.open) }, numbers: (1..6).to_a)
              total(part, kinds.flat_map(&:open))
            end

            def total(part, open)
              sum = @land.sum(open)
              figures = [[hours(sum.hours), "hours, first pass"], [money(sum.cost), "first pass"],
                         [hours(sum.hours_to_quiet), "hours until quiet#{of(sum)}"],
                         [money(sum.cost_to_quiet), "until quiet#{of(sum)}"]]
              part.figures(figures.select(&:first).map { |value, label| [value, label, nil] })
              part.text("Planning values from amounts as mapped or counted, at #{said.money(property.rates.hour)} an " \
                        "hour. The range goes from all stands easy to all stands hard.", source: "memory")
              left_out(part, sum)
            end

            # Which patches a sum until quiet is of, where it is not of all.
            def of(sum) = sum.endless.positive? ? ", of #{patches(sum.ending)}" : ""

            def left_out(part, sum)
              if sum.unknown.positive?
                part.caution("Not in these sums, since their amount or method is not known: #{patches(sum.unknown)}.")
              end
              return unless sum.endless.positive?

              part.caution("On #{patches(sum.endless)} the method only holds the plant down, or frees trees from it: " \
                           "that work does not end, and is in no sum until quiet.")
            end

            def row(name, open)
              sum = @land.sum(open)
              endless = sum.known.positive? && sum.ending.zero? ? "no end in sight" : "not known"
              [name, open.size, hours(sum.hours) || "not known", money(sum.cost) || "not known",
               until_quiet(hours(sum.hours_to_quiet), sum) || endless,
               until_quiet(money(sum.cost_to_quiet), sum) || endless, sum.years || "–"]
            end

            def until_quiet(words, sum) = words && "#{words}#{of(sum)}"
          end
        end
      end
    end
  end
end
