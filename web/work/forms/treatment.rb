# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Forms
        # Work done: who, how long, which method, how much, what was used.
        class Treatment < Form
          CLOCK = /\A([01]\d|2[0-3]):[0-5]\d\z/

          class Fields < Form::Contract
            params do
              required(:done_on).filled(:date)
              required(:method_key).filled(:string)
              optional(:people).filled(:string, max_size?: 400)
              optional(:who).filled(:string, max_size?: 2000)
              required(:crew_size).filled(:integer, gt?: 0, lteq?: 500)
              required(:hours).filled(:float, gt?: 0, lteq?: 24)
              optional(:plants_done).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              optional(:stems_done).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              optional(:buckets).filled(:integer, gteq?: 0, lteq?: 100_000)
              Form::BySize::FIELDS.each_value { |name| optional(name).filled(:integer, gteq?: 0, lteq?: 1_000_000) }
              optional(:area).filled(:float, gteq?: 0, lteq?: 100_000_000)
              optional(:active_key).filled(:string)
              optional(:product_id).filled(:integer)
              optional(:product).filled(:float, gteq?: 0, lteq?: 1_000_000)
              optional(:second_product_id).filled(:integer)
              optional(:second_product).filled(:float, gteq?: 0, lteq?: 1_000_000)
              optional(:mix).filled(:float, gteq?: 0, lteq?: 10_000_000)
              optional(:applicator).filled(:string, max_size?: 200)
              optional(:supervisor).filled(:string, max_size?: 80)
              optional(:licence_number).filled(:string, max_size?: 80)
              optional(:licence_category).filled(:string, max_size?: 80)
              optional(:licence_expires_on).filled(:date)
              optional(:started_at).filled(:string, format?: CLOCK)
              optional(:ended_at).filled(:string, format?: CLOCK)
              Store::Treatment::TIMES.each do |time|
                optional(:"#{time}_temperature").filled(:float, gteq?: -40, lteq?: 130)
                optional(:"#{time}_wind").filled(:float, gteq?: 0, lteq?: 150)
                optional(:"#{time}_humidity").filled(:float, gteq?: 0, lteq?: 100)
              end
              optional(:equipment).filled(:string, max_size?: 200)
              optional(:left_over).filled(:float, gteq?: 0, lteq?: 10_000_000)
              optional(:left_over_went).filled(:string, max_size?: 200)
              optional(:seed_fall).filled(:string, included_in?: Core::Recheck::SeedFall::ANSWERS.keys)
              optional(:disposal).filled(:string)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:done_on).validate(:day_of_record)
            rule(:who) { key.failure("are not all on the list") if value && Treatment.ids(value).nil? }
            rule(:method_key) do
              key.failure("is not a method here") unless Core::Knowledge.shipped.methods_of_removal.key?(value)
            end
            rule(:active_key) do
              key.failure("is not in the library") if value && !Core::Knowledge.shipped.actives.key?(value)
            end
            rule(:started_at, :ended_at) do
              from, to = values[:started_at], values[:ended_at]
              key(:ended_at).failure("is before it began") if from && to && to < from
              key(:ended_at).failure("is needed beside the beginning") if from && !to
            end
            rule(:licence_expires_on) do
              expiry = values[:licence_expires_on]
              far = expiry && !expiry.year.between?(1990, 2100)
              key(:licence_expires_on).failure("is not between 1990 and 2100") if far
            end
            rule(:left_over, :mix) do
              left, mix = values[:left_over], values[:mix]
              key(:left_over).failure("is more than the mix") if left && mix && left > mix
            end
            %i[product_id second_product_id].each do |name|
              rule(name) { key.failure("is not on the shelf") if value && !Store::Product.at_hand?(value) }
            end
            rule(:second_product_id, :second_product, :product_id) do
              second, poured, first = values.to_h.values_at(:second_product_id, :second_product, :product_id)
              key(:second_product_id).failure("needs a first product beside it") if second && !first
              key(:second_product_id).failure("is the same as the first") if second && second == first
              key(:second_product).failure("is needed: how much of the second") if second && !poured
              key(:second_product_id).failure("is needed: which one is it") if poured && !second
            end
            rule(:plants_done, :stems_done, :area, :buckets) do
              sizes = Form::BySize.sum(values)
              unless sizes.positive? || values.to_h.values_at(:plants_done, :stems_done, :area, :buckets).any?
                key(:area).failure("or a count: say how much was done")
              end
              if values[:stems_done] && sizes > values[:stems_done]
                key(:stems_done).failure("is less than the #{sizes} by thickness")
              end
            end
            rule(:product, :second_product, :mix) do
              measured = { product: :product_id, second_product: :second_product_id }
                         .reject { |_, id| Treatment.dry?(values[id]) }
              poured, mix = values.to_h.values_at(*measured.keys).compact, values[:mix]
              key(:product).failure("is more than the mix it went into") if mix && poured.sum > mix
            end
            rule(:method_key, :active_key, :product, :applicator) do
              method = Core::Knowledge.shipped.methods_of_removal[values[:method_key]]
              next unless method&.herbicide?

              key(:active_key).failure("is needed: this method uses herbicide") unless values[:active_key]
              key(:product).failure("is needed: how much stock was used") unless values[:product]
              key(:applicator).failure("is needed: who applied it") unless values[:applicator]
            end
          end

          # A form filled from a record.
          def self.of(work, units, today)
            columns = work.values.slice(:done_on, :people, :crew_size, :hours, *KEPT, *LAW)
            columns.merge!(Form::BySize.typed(work.stems_by_size), who: JSON.parse(work.people_ids).join(","))
            columns.merge!(area: units.from_si(:area, work.area_m2)&.round(1),
                           product: used(work.product_ml, work.product_g, units),
                           second_product: used(work.second_product_ml, work.second_product_g, units),
                           mix: units.from_si(:volume, work.mix_ml)&.round(1),
                           left_over: units.from_si(:volume, work.left_over_ml)&.round(1), **measured(work, units))
            new(typed(columns), units:, today:)
          end

          LAW = %i[supervisor licence_number licence_category licence_expires_on started_at ended_at equipment
                   left_over_went].freeze
          MEASURED = Store::Treatment::TIMES.flat_map do |time|
            Store::Treatment::MEASURED.map { |what| :"#{time}_#{what}" }
          end.freeze
          KEPT = %i[method_key plants_done stems_done buckets active_key product_id second_product_id applicator
                    disposal seed_fall note].freeze

          # What was used of a product, measured or weighed, as it would be typed.
          def self.used(millilitres, grams, units)
            (millilitres ? units.from_si(:volume, millilitres) : units.from_si(:mass, grams))&.round(2)
          end

          # Weather by hand, as it would be typed.
          def self.measured(work, units)
            JSON.parse(work.weather_by_hand || "{}").each_with_object({}) do |(time, told), all|
              all.merge!("#{time}_temperature": units.from_celsius(told["temperature"])&.round(1),
                         "#{time}_wind": units.from_si(:wind, told["wind_km_h"])&.round(1),
                         "#{time}_humidity": told["humidity"])
            end
          end
          private_class_method :measured, :used

          # Ids of people who are on the list, from "3,5"; nil where one is not.
          def self.ids(text)
            ids = text.split(",").map { |one| Whole.read(one) }.uniq
            ids if Store::Person.at_hand?(ids)
          end

          # Is that product of the shelf weighed, not measured?
          def self.dry?(id) = id ? Store::Product[id]&.label&.dry? : false

          # A product of the shelf says which active it is; boxes that were ticked are one answer.
          def initialize(params, **context)
            ticked = params["who"]
            params = params.to_h.merge("who" => ticked.grep(String).reject(&:empty?).join(",")) if ticked.is_a?(Array)
            number = Whole.read(params["product_id"] || params[:product_id])
            product = Store::Product[number] if number.positive? && Store::Product.at_hand?(number)
            known = product.label.main&.key if product
            super(known ? params.to_h.merge("active_key" => known) : params, **context)
          end

          # May it be kept as new work? Where people have accounts, the licence is theirs on the list of people, not
          # what somebody types.
          def fit?
            failed(*unlicensed) if unlicensed
            ok?
          end

          # The stored treatment, or nil with errors.
          def store(patch, site) = fit? ? Store::Treatment.record(patch, site, **columns) : nil

          # The columns as typed.
          def columns
            plain = (%i[done_on people crew_size hours] + KEPT + LAW).to_h { |field| [field, values[field]] }
            people = values[:who] ? self.class.ids(values[:who]) : []
            { **plain, **licence(plain), **quantities, **sizes, people_ids: JSON.generate(people),
                                                                weather_by_hand: by_hand }
          end

          private

          # The field of whoever answers for it and holds no licence that day, with its complaint; nil for nobody.
          def unlicensed
            name, on = values.values_at(answering, :done_on)
            return unless name && on && values[:active_key] && Store::Account.door?

            last = Store::Person.where(id: Store::Person.by_name[name.downcase.strip]).get(:licence_expires_on)
            [answering, "is not licensed on that day on the list of people"] if last.nil? || last < on
          end

          # Whose licence it is done under.
          def answering = values[:supervisor] ? :supervisor : :applicator

          # Stems by thickness, which are all of them where nobody says how many there were.
          def sizes
            sum = Form::BySize.sum(values)
            said = values[:stems_done] || (sum.positive? ? sum : nil)
            { stems_by_size: Form::BySize.kept(values), stems_done: said }
          end

          def quantities
            { area_m2: si(:area, :area), mix_ml: si(:mix, :volume), left_over_ml: si(:left_over, :volume),
              **used(:product), **used(:second_product) }
          end

          # mL of what is measured, grams of what is weighed.
          def used(which)
            dry = Treatment.dry?(values[:"#{which}_id"])
            { "#{which}_ml": dry ? nil : si(which, :volume), "#{which}_g": dry ? si(which, :mass) : nil }
          end

          # Of whoever answers for it and is on the list, where nothing was typed of the licence.
          def licence(plain)
            fields = %i[licence_number licence_category licence_expires_on]
            name = values[answering]
            known = Store::Person.live.here.first(Sequel.ilike(:name, name)) if name
            known && plain.values_at(*fields).none? ? fields.to_h { |field| [field, known[field]] } : {}
          end

          # JSON of what was measured at start, middle and end; nil where nothing was.
          def by_hand
            told = Store::Treatment::TIMES.to_h do |time|
              [time, { temperature: units.to_celsius(values[:"#{time}_temperature"]),
                       wind_km_h: si(:"#{time}_wind", :wind), humidity: values[:"#{time}_humidity"] }.compact]
            end
            told = told.reject { |_, measured| measured.empty? }
            told.any? ? JSON.generate(told) : nil
          end
        end
      end
    end
  end
end
