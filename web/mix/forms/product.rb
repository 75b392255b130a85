# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      module Forms
        # A product as its label says it, in the property's units. The same form reads rows of a shelf's CSV.
        class Product < Form
          KINDS = Core::Mix::Product::USES.keys.freeze
          WINDS, WARMTHS = %i[wind_low wind_high gust].freeze, %i[temperature_low temperature_high].freeze
          TEXTS = %i[registration protection first_aid spill call kept_at].freeze
          MOST = 2000
          RATES = %w[rate_low rate_high].freeze
          HOURS = %i[rainfast_h reentry_h plant_back_days mixed_keeps_h].freeze # and days
          BY_WEIGHT, BY_VOLUME = %i[percent acid_percent].freeze, %i[grams acid_grams].freeze # of active, of acid
          PAIRS = [BY_WEIGHT, BY_VOLUME].freeze
          PRINTED = [*BY_WEIGHT, *BY_VOLUME].freeze
          PLAIN = [:name, :form, :signal_word, *HOURS, :ready_to_use, :aquatic, :expires_on, :lock_version].freeze

          class Fields < Form::Contract
            params do
              required(:name).filled(:string, max_size?: 120)
              optional(:form).filled(:string, included_in?: Core::Knowledge.shipped.formulations.keys)
              [1, 2].each do |n|
                optional(:"active#{n}").filled(:string, included_in?: Core::Knowledge.shipped.actives.keys)
                BY_WEIGHT.each { |name| optional(:"#{name}#{n}").filled(:float, gt?: 0, lteq?: 100) }
                BY_VOLUME.each { |name| optional(:"#{name}#{n}").filled(:float, gt?: 0, lteq?: MOST) }
                optional(:"most#{n}").filled(:float, gt?: 0, lteq?: 1000)
              end
              KINDS.each do |kind|
                optional(:"use_#{kind}").filled(:bool)
                optional(:"carrier_#{kind}").filled(:string, included_in?: Core::Mix::Product::CARRIERS)
                optional(:"low_#{kind}").filled(:float, gt?: 0, lteq?: 100)
                optional(:"high_#{kind}").filled(:float, gt?: 0, lteq?: 100)
                RATES.each { |name| optional(:"#{name}_#{kind}").filled(:float, gt?: 0, lteq?: MOST) }
              end
              optional(:density).filled(:float, gt?: 0, lteq?: MOST)
              optional(:signal_word).filled(:string, included_in?: Core::Mix::Product::SIGNALS)
              optional(:ready_to_use).filled(:bool)
              optional(:aquatic).filled(:bool)
              optional(:rainfast_h).filled(:float, gteq?: 0, lteq?: 72)
              optional(:reentry_h).filled(:float, gteq?: 0, lteq?: 720)
              optional(:plant_back_days).filled(:float, gteq?: 0, lteq?: 3650)
              optional(:mixed_keeps_h).filled(:float, gt?: 0, lteq?: 8760)
              WINDS.each { |name| optional(name).filled(:float, gteq?: 0, lteq?: 150) }
              WARMTHS.each { |name| optional(name).filled(:float, gteq?: -40, lteq?: 130) }
              TEXTS.each { |name| optional(name).filled(:string, max_size?: MOST) }
              optional(:expires_on).filled(:date)
              optional(:counted).filled(:float, gteq?: 0, lteq?: 1_000_000)
              optional(:lock_version).filled(:integer)
              optional(:mistyped).filled(:bool)
            end
            %i[wind temperature].each do |name|
              rule(:"#{name}_high", :"#{name}_low") do
                low, high = values[:"#{name}_low"], values[:"#{name}_high"]
                key(:"#{name}_high").failure("is below the lowest") if low && high && high < low
              end
            end
            KINDS.product(["", "rate_"]).each do |kind, of|
              rule(:"#{of}high_#{kind}", :"#{of}low_#{kind}") do
                low, high = values[:"#{of}low_#{kind}"], values[:"#{of}high_#{kind}"]
                key(:"#{of}high_#{kind}").failure("is below the least") if low && high && high < low
              end
            end
            rule(:active1) { key.failure("is needed: what is in it?") unless value }
            [1, 2].each do |n|
              rule(:"active#{n}", *PRINTED.map { |name| :"#{name}#{n}" }) do
                told = PRINTED.select { |name| values[:"#{name}#{n}"] }
                if values[:"active#{n}"] && told.empty?
                  key(:"percent#{n}").failure("or the grams are needed: how strong is it?")
                end
                both = PAIRS.find { |two| (two - told).empty? }
                key(:"#{both.last}#{n}").failure("or active, not both: type what the label prints") if both
              end
            end
            rule(:expires_on) { key.failure("is no year of a label") if value && !value.year.between?(1990, 2100) }
          end

          # A form filled from a product.
          def self.of(product, units, today)
            one = Read.new(product, units)
            new(typed(one.fields).transform_values { |text| text == "false" ? "" : text }, units:, today:)
          end

          # The stored product, new or changed, or nil with errors.
          def store(product = Store::Product.new)
            complaints if ok?
            return unless ok?

            product.lock_version = values[:lock_version] if values[:lock_version] && !product.new?
            product.set(columns)
            product.mistyped = values[:mistyped]
            if recounted?(product)
              product.set(counted_ml: si(:counted, :volume), counted_at: Time.now.utc,
                          counted_on: today)
            end
            product.save
          rescue Sequel::NoExistingObject
            failed(:base, "Someone else changed this product meanwhile: reload, and enter it again.") && nil
          end

          # The columns as typed, SI.
          def columns
            { **values.to_h.slice(:name), **[:form, :signal_word, *HOURS, :expires_on]
              .to_h { |name| [name, values[name]] },
              **TEXTS.to_h { |name| [name, values[name]] }, **WINDS.to_h { |name| [name, si(name, :wind)] },
              **WARMTHS.to_h { |name| [name, units.to_celsius(values[name])] },
              density: si(:density, :loading)&.fdiv(1000), ready_to_use: values[:ready_to_use] || false,
              aquatic: values[:aquatic] || false,
              actives: JSON.generate(actives), uses: JSON.generate(uses) }
          end

          private

          def actives
            [1, 2].filter_map do |n|
              active = values[:"active#{n}"] or next
              { active:, percent: values[:"percent#{n}"], acid_percent: values[:"acid_percent#{n}"],
                grams_per_litre: si(:"grams#{n}", :loading), acid_per_litre: si(:"acid_grams#{n}", :loading),
                most_g_per_ha: si(:"most#{n}", :ground_dose) }.compact
            end
          end

          # What a rate on the ground is typed in: of what is weighed by weight.
          def spread = Core::Knowledge.shipped.formulations.dig(values[:form], "dry") ? :spread_dry : :spread

          def uses
            KINDS.filter_map do |kind|
              ends = { low: values[:"low_#{kind}"], high: values[:"high_#{kind}"],
                       rate_low: si(:"rate_low_#{kind}", spread), rate_high: si(:"rate_high_#{kind}", spread) }
              carrier = values[:"carrier_#{kind}"]
              { kind:, carrier:, **ends }.compact if values[:"use_#{kind}"] || carrier || ends.values.any?
            end
          end

          # What cannot all be so, as core says it.
          def complaints
            label = Store::Product.new.set(columns).label
            grams = values[:grams1] ? :grams1 : :acid_grams1
            at = { actives: :active2, percent: :percent2, grams:, density: :density, uses: :base }
            label.complaints.each { |field, words| errors[at.fetch(field)] = words }
          end

          # A count by hand is one only where it differs from what is thought to be there.
          def recounted?(product)
            return false unless values[:counted]

            known = product.new? ? nil : product.on_hand_ml
            known.nil? || (known - si(:counted, :volume)).abs > 0.05
          end

          # A product's columns as a person would type them.
          Read = Struct.new(:product, :units) do
            def fields
              winds = WINDS.to_h { |name| [name, units.from_si(:wind, product[name])&.round(2)] }
              warmths = WARMTHS.to_h { |name| [name, units.from_celsius(product[name])&.round(2)] }
              weight = units.from_si(:loading, product.density&.*(1000))&.round(4)
              counted = units.from_si(:volume, product.on_hand_ml)&.round(1)
              { **product.values.slice(*PLAIN, *TEXTS), **winds, **warmths, **ingredients, **uses, density: weight,
                                                                                                   counted: }
            end

            # As the label prints it: of the active, or of its acid.
            def ingredients
              product.printed.each_with_index.with_object({}) do |(one, n), all|
                all.merge!("active#{n + 1}": one["active"], "percent#{n + 1}": one["percent"],
                           "acid_percent#{n + 1}": one["acid_percent"],
                           "grams#{n + 1}": units.from_si(:loading, one["grams_per_litre"])&.round(4),
                           "acid_grams#{n + 1}": units.from_si(:loading, one["acid_per_litre"])&.round(4),
                           "most#{n + 1}": units.from_si(:ground_dose, one["most_g_per_ha"])&.round(4))
              end
            end

            def spread = product.label.dry? ? :spread_dry : :spread

            def uses
              product.uses_said.each_with_object({}) do |use, all|
                all.merge!("use_#{use.kind}": true, "carrier_#{use.kind}": use.carrier,
                           "low_#{use.kind}": use.low, "high_#{use.kind}": use.high,
                           "rate_low_#{use.kind}": units.from_si(spread, use.rate_low)&.round(4),
                           "rate_high_#{use.kind}": units.from_si(spread, use.rate_high)&.round(4))
              end
            end
          end
          private_constant :Read
        end
      end
    end
  end
end
