# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What goes along in the truck: volumes for a load, in which order, what the label asks, whom to call. The same
      # for the page and for PDF.
      class Card
        UNSAID = "Not typed: read the label."

        attr_reader :desk, :units

        def initialize(desk, units, today)
          @desk, @units, @today = desk, units, today
        end

        def mixture = desk.answer
        def patch = desk.patch

        def title
          mixture.doses.map { |dose| "#{dose.product.name}, #{UsageWords.strength(dose.strength)}" }.join(" and ")
        end

        def subtitle
          place = "#{patch.code}, #{patch.property.name}" if patch
          [place, desk.removal.name, Words.full_day(@today)].compact.join(" · ")
        end

        # "6 loads: 5 of 500 mL, the last of 305 mL"
        def loads
          return "One load of #{units.volume(mixture.total_ml)}" if mixture.loads == 1

          last, full = [mixture.last_load_ml, mixture.load_ml].map { |ml| units.volume(ml) }
          return "#{mixture.loads} loads of #{full}" if last == full

          "#{mixture.loads} loads: #{mixture.loads - 1} of #{full}, the last of #{last}"
        end

        # [[number, what, full load, last load]]; the last nil where there is one load.
        def rows
          mixture.parts.map.with_index(1) do |part, n|
            full, last = mixture.in_load(part), mixture.in_load(part, mixture.last_load_ml)
            [n, part.name, amount(full), mixture.loads > 1 ? amount(last) : nil]
          end
        end

        # [[what, how much]] to have at hand for the whole work.
        def to_bring = mixture.to_bring.map { |part| [part.name, amount(part)] }

        # What happens to what is left over, and to rinse water, sentences.
        def left_over = Core::Knowledge.shipped.cautions.fetch("left_over_mix")["text"]

        # [[heading, words]] of each product's label.
        def label
          mixture.doses.map(&:product).flat_map do |product|
            [["Within", limits(product)], ["Wear", product.protection], ["First aid", product.first_aid],
             ["A spill", product.spill], ["Call", product.call]].map { |heading, words| [heading, words || UNSAID] }
          end.uniq
        end

        # What has to be said of the products there, sentences.
        def notes = desk.notes.map(&:first)

        # What stands against it, sentences.
        def against = desk.objections.map(&:first)

        private

        def limits(product)
          use = product.use(desk.use)
          found = [use && "#{Core::Mix::Product.span(use)} of product",
                   use && range("product on ground", use.rate_low, use.rate_high, product.dry? ? :spread_dry : :spread),
                   limit("wind", product.wind_low, product.wind_high, :wind),
                   limit("warmth", product.temperature_low, product.temperature_high, :temperature),
                   product.rainfast_h && "no rain for #{hours(product.rainfast_h)}",
                   product.reentry_h && "nobody in for #{hours(product.reentry_h)}",
                   product.mixed_keeps_h && "a mix keeps #{hours(product.mixed_keeps_h)}",
                   product.aquatic ? "aquatic label" : "not for water"].compact
          product.labelled? ? found.join("; ") : "#{UNSAID} These are planning values."
        end

        def range(what, low, high, unit)
          return unless low || high

          "#{what} #{[low, high].map { |one| one ? units.public_send(unit, one) : "any" }.join(" to ")}"
        end

        def limit(what, low, high, kind)
          return unless low || high

          ends = [low && units.public_send(:"least_#{kind}", low), high && units.public_send(:"most_#{kind}", high)]
          "#{what} #{ends.map { |one| one || "any" }.join(" to ")}"
        end

        def hours(number) = "#{number.to_s.delete_suffix(".0")} h"
        def amount(part) = part.ml ? units.volume(part.ml) : units.mass(part.grams)
      end
    end
  end
end
