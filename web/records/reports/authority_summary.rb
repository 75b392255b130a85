# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # A calendar year's herbicide for an authority: by product, by applicator, by month; what the records lack is
        # said first.
        class AuthoritySummary
          # rows: [Store::HerbicideRecords::Row] of the year; rule: the rule of record that is kept, or nil.
          def initialize(property, year, rows, rule)
            @property, @year, @rows, @rule = property, year, rows, rule
            @units = property.measures
          end

          def title = "Herbicide used in #{@year}: #{@property.name}"

          def subtitle
            @rule ? "By the rule of record: #{@rule.label}" : "No rule of record is chosen for this property"
          end

          def parts = @parts ||= [open, products, people, months].reject(&:empty?)

          private

          def works = @rows.map(&:work)

          def open
            Part.new("open", "Whole and lacking") do |part|
              book = "/mix/records?year=#{@year}"
              lacking = @rule ? @rows.count { |row| row.missing.any? }.to_s : "not checked"
              part.figures([[@rows.size.to_s, "applications", book], [lacking, "lack something", book],
                            [area_said(works), "ground treated", nil]])
              part.caution("This is drawn from the records of this copy. Authorities may ask for another form; local " \
                           "rules decide.")
            end
          end

          def area_said(some)
            known = some.filter_map(&:area_m2)
            return "not known" if known.empty?

            missing = some.size - known.size
            "#{@units.area(known.sum)}#{", not known of #{missing}" if missing.positive?}"
          end

          # By product as its label was on record: amount, acids, ground, targets.
          def products
            Part.new("products", "By product") do |part|
              rows = poured.group_by { |one, _| [one.label.name, one.label.registration] }
                           .sort_by { |(name, registration), _| [name, registration.to_s] }
              part.table(%w[Product Registration Amount Acid Ground Targets],
                         rows.map do |(name, registration), some|
                           product_row(name, registration, some)
                         end, numbers: [2, 4])
              bare = works.count { |work| work.poured(labels).empty? }
              if bare.positive?
                part.caution("#{Words.count(bare,
                                            "application")} name no product of the shelf: they are not in this table.")
              end
            end
          end

          def labels = @labels ||= Store::Labels.new
          def poured = @poured ||= works.flat_map { |work| work.poured(labels).map { |one| [one, work] } }

          def product_row(name, registration, some)
            targets = some.filter_map { |_, work| work.patch.plant&.scientific }.uniq.sort
            [name, registration || "not on record", amounts(some), acids(some), area_said(some.map(&:last)),
             targets.join(", ")]
          end

          def amounts(some)
            ml, grams = some.filter_map { |one, _| one.ml }, some.filter_map { |one, _| one.grams }
            missing = some.count { |one, _| one.amount.nil? }
            said = [ml.any? && @units.volume(ml.sum), grams.any? && @units.mass(grams.sum)].select(&:itself)
            said << "not said of #{missing}" if missing.positive?
            said.join(", ")
          end

          def acids(some)
            sums = Hash.new(0.0)
            some.map(&:first).each do |one|
              one.label.ingredients.each { |part| sums[part.active.acid] += one.acid(part) || Float::NAN }
            end
            sums.map { |acid, grams| "#{acid} #{grams.nan? ? "not known" : @units.mass(grams)}" }.join(", ")
          end

          def people
            Part.new("people", "By applicator") do |part|
              rows = @rows.group_by { |row| row.application.applicator }.sort_by { |name, _| name.to_s }
              part.table(%w[Applicator Licence Applications First Last], rows.map do |name, some|
                told = some.map(&:application)
                days = told.map(&:done_on)
                [name || "not on record", told.filter_map(&:certification).uniq.join(", "), some.size,
                 days.min.iso8601, days.max.iso8601]
              end, numbers: [2])
            end
          end

          def months
            Part.new("months", "By month") do |part|
              rows = works.group_by { |work| work.done_on.month }.sort
              part.table(%w[Month Applications Ground], rows.map do |month, some|
                [Date::MONTHNAMES[month], some.size, area_said(some)]
              end, numbers: [1, 2])
            end
          end
        end
      end
    end
  end
end
