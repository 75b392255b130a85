# frozen_string_literal: true

module Thistle
  module Store
    # Model: work that was done on a patch on a day.
    class Treatment < Sequel::Model(:treatments)
      many_to_one :patch, class: "Thistle::Store::Patch"
      one_to_many :tasks, class: "Thistle::Store::Task", order: :due_on

      include Amendable

      dataset_module do
        # On the ground of a group; nil for all.
        def of_group(id)
          return self unless id

          where(patch_id: Patch.where(property_id: Property.where(group_id: id).select(:id)).unordered.select(:id))
        end
      end

      # One product in the tank: its label as it was on record then, and mL of it, grams of what is weighed; nil where
      # nobody said.
      Poured = Core::Value.define(:label, :ml, :grams) do
        def amount = ml || grams

        # Grams of an active's acid; nil where the label does not tell.
        def acid(part) = amount && label.acid_loading(part)&.*(amount / 1000)
      end

      # Adds a treatment with the weather of its day; its return visits and the patch's state follow.
      def self.record(patch, site, **fields)
        db.transaction do
          treatment = create(patch_id: patch.id, weather: JSON.generate(weather(site, fields.fetch(:done_on))),
                             hourly_weather: hourly(site, fields), **fields)
          FollowUps.settle(patch)
          treatment
        end
      end

      # The day as it was measured or forecast; of a day that nobody knows, only that.
      def self.weather(site, date)
        day = site.day(date)
        return { standing: day.standing } if UNKNOWN.include?(day.standing.to_s)

        { tmin: day.tmin, tmax: day.tmax, rain_mm: day.rain, wind_km_h: day.wind, humidity: day.humidity,
          soil: site.ground(date).kind, standing: day.standing }
      end
      UNKNOWN = %w[regional usual].freeze # weather of other places or years, which is no record of a day

      # The weather at start, middle and end of an application, as JSON; nil where they, or it, are not known.
      def self.hourly(site, fields)
        from, to = fields.values_at(:started_at, :ended_at).map { |text| text && text[0, 2].to_i }
        return unless from && to

        hours = site.hourly(fields.fetch(:done_on)).to_h { |one| [one.at, one] }
        seen = hours.values_at(from, (from + to) / 2, to)
        return if seen.any? { |one| one.nil? || UNKNOWN.include?(one.standing.to_s) }

        JSON.generate(seen.map do |one|
          { at: one.at, temperature: one.temperature, wind_km_h: one.wind, humidity: one.humidity,
            standing: one.standing }
        end)
      end

      TIMES, MEASURED = %w[start middle end].freeze, %w[temperature wind humidity].freeze

      # [{ at, temperature, wind_km_h, humidity, standing, by_hand }] at start, middle and end, nils where one is not
      # known; what somebody measured goes before the station, and is named in by_hand. Empty where nothing is known.
      def hours_of_application
        station, hand = JSON.parse(hourly_weather || "[]"), JSON.parse(weather_by_hand || "{}")
        return [] if station.empty? && hand.empty?

        TIMES.each_with_index.map do |time, n|
          measured = hand.fetch(time, {})
          { **(station[n] || {}), **measured, "by_hand" => measured.keys }
        end
      end

      # Is the weather at all three times known?
      def weathered?
        hours = hours_of_application
        hours.any? && hours.all? { |one| one.values_at("temperature", "wind_km_h").all? }
      end

      # The last day on which nobody goes in, and on which nothing is planted, by the label of what was used; nil where
      # it says nothing. Part of a day counts as a day.
      def closed_until = label_days(:reentry_h) { |hours| (hours / 24.0).ceil }
      def unplanted_until = label_days(:plant_back_days, &:ceil)

      # Products of the shelf in the tank: [Poured].
      def poured(labels = Labels.new)
        [[product_id, label_version, product_ml, product_g],
         [second_product_id, second_label_version, second_product_ml, second_product_g]]
          .filter_map do |id, version, ml, grams|
            labels.of(id, version)&.then { |label| Poured.new(label:, ml:, grams:) }
          end
      end

      # As the rules for records read it. Of two products, what one lacks is missing.
      def application(labels = Labels.new)
        both = poured(labels)
        Core::Mix::ApplicationRecord.new(
          product: all_of(both.map { |one| one.label.name }),
          registration: all_of(both.map { |one| one.label.registration }),
          amount: measured(both), mix: mix_ml, done_on:,
          started: started_at, ended: ended_at, place: "#{patch.code}, #{patch.property.name}", area: area_m2,
          site: patch.property.name, target: patch.plant&.scientific, applicator: applied_by,
          certification: licence_number, category: licence_category, expiry: licence_expires_on,
          weather: (hours_of_application if weathered?), equipment:,
          left_over: left_over_ml, written_on:
        )
      end

      # Who applied it, and under whose licence.
      def applied_by = supervisor ? "#{applicator}, under #{supervisor}" : applicator

      # The day on which it was written down, on the clock of the place.
      def written_on = patch.property.clock.date(created_at)

      # Everybody who was there, by name: those of the list, then whoever was written down besides.
      def who(names = Person.names)
        [*JSON.parse(people_ids).filter_map { |one| names[one] }, people].compact.reject(&:empty?).join(", ")
      end

      def on = done_on
      def removal = Core::Knowledge.shipped.removal(method_key)

      # The weather of its day, {} where nobody knows it.
      def conditions
        told = JSON.parse(weather || "{}")
        UNKNOWN.include?(told["standing"]) ? {} : told
      end

      # Return visits that follow from plant and method: [Core::Recheck::Returns::Visit].
      def returns(plant, site)
        Core::Recheck::Returns.new(plant:, removal:, done_on:, site:, neighbour: patch.seeded_beside?).visits
      end

      # The longest that a label in the tank asks for.
      def label_days(fact)
        told = poured.filter_map { |one| one.label.public_send(fact) }.max
        told&.positive? ? done_on + yield(told) : nil
      end

      # mL of all that was poured, 0 where all of it was weighed; nil where some amount is not known.
      def measured(both)
        return product_ml if both.empty?

        both.sum { |one| one.ml || 0.0 } if both.all?(&:amount)
      end

      # "One and another"; nil where one of them is not known, or none is there.
      def all_of(words) = words.any? && words.all? ? words.join(" and ") : nil
      private :label_days, :all_of, :measured

      # What was used against what its stubs should have drunk (Core::Mix::StubCheck::Finding); nil for other work.
      def stub_check
        return unless removal.herbicide == :stem && mix_ml && stems_done

        usage = Usage.of(removal, patch.stem_size, except: id) or return
        Core::Mix::StubCheck.new(used_ml: mix_ml, stems: stems_done, usage:).finding
      end

      # What its product's label says against it, sentences: a use that it does not have, a strength outside it, wind or
      # warmth past its limits, a product that had expired, a licence that had.
      def against_label
        found = poured.select { |one| one.label.mixable? }.flat_map { |one| against(one) }
        found.concat(poured.flat_map { |one| past_limits(one.label) })
        found << "The applicator was no longer licensed." if licence_expires_on && licence_expires_on < done_on
        found.compact
      end

      def against(one)
        use = removal.use
        found = []
        found << one.label.against(use, 100 * one.ml / mix_ml) if use && one.ml && mix_ml&.positive?
        found << one.label.against_rate(use, one.amount / area_m2 * 10_000) if use && one.amount && area_m2&.positive?
        found << "#{one.label.name} had expired." if one.label.expired?(done_on)
        found
      end
      private :against

      # Of the hours of the application that are known, those outside what a label allows: sentences.
      def past_limits(label)
        LIMITED.flat_map do |measured, unit, what, low, high|
          least, most = label.public_send(low), label.public_send(high)
          hours_of_application.zip(TIMES).filter_map do |hour, time|
            value = hour[measured] or next

            asks = if most && value > most then "allows at most {most_#{unit}:#{most}}"
                   elsif least && value < least then "asks at least {least_#{unit}:#{least}}"
                   end
            "#{what} #{TIMES_SAID.fetch(time)} was {#{unit}:#{value}}; the label of #{label.name} #{asks}." if asks
          end
        end
      end
      private :past_limits

      TIMES_SAID = { "start" => "at the start", "middle" => "half way", "end" => "at the end" }.freeze
      LIMITED = [["wind_km_h", :wind, "Wind", :wind_low, :wind_high],
                 ["temperature", :temperature, "Warmth", :temperature_low, :temperature_high]].freeze

      # Acids that this record brought past what its product's label allows on the ground in a year: [Core::Mix::Limit].
      def past_label
        allowed = Core::Mix::Limit.allowed(poured.map(&:label))
        lies = Applications.new(patch, done_on.year) if allowed.any?
        allowed.map { |acid, most| Core::Mix::Limit.new(acid:, lies: lies.most(acid) || 0.0, planned: 0.0, most:) }
               .select(&:over?)
      end

      # Corrected to another day, it keeps that day's weather; to another product, that one's label.
      def before_save
        { product_id: :label_version, second_product_id: :second_label_version }.each do |id, version|
          next unless new? || changed_columns.include?(id)

          self[version] = self[id] && Product[self[id]]&.lock_version
        end
        if !new? && changed_columns.include?(:done_on)
          site = patch.property.site(patch.property.today)
          self.weather = JSON.generate(self.class.weather(site, done_on))
        end
        if !new? && changed_columns.intersect?(%i[done_on started_at ended_at])
          self.hourly_weather = self.class.hourly(patch.property.site(patch.property.today), values)
        end
        super
      end
    end
  end
end
