# frozen_string_literal: true

module Thistle
  module Store
    # Model: work that was done on a patch on a day.
    class Treatment < Sequel::Model(:treatments)
      many_to_one :patch, class: "Thistle::Store::Patch"
      one_to_many :tasks, class: "Thistle::Store::Task", order: :due_on

      include Amendable

      # Adds a treatment with the weather of its day; its return visits and the patch's state follow.
      def self.record(patch, site, **fields)
        db.transaction do
          treatment = create(patch_id: patch.id, weather: JSON.generate(weather(site, fields.fetch(:done_on))),
                             hourly_weather: hourly(site, fields), **fields)
          patch.follow_records
          treatment
        end
      end

      # The day as it was measured, or forecast, or is usual.
      def self.weather(site, date)
        day = site.day(date)
        { tmin: day.tmin, tmax: day.tmax, rain_mm: day.rain, wind_km_h: day.wind, humidity: day.humidity,
          soil: site.ground(date).kind,
          standing: day.standing }
      end

      # The weather at start, middle and end of an application, as JSON; nil where they, or it, are not known.
      def self.hourly(site, fields)
        from, to = fields.values_at(:started_at, :ended_at).map { |text| text && text[0, 2].to_i }
        return unless from && to

        hours = site.hourly(fields.fetch(:done_on)).to_h { |one| [one.at, one] }
        seen = hours.values_at(from, (from + to) / 2, to)
        return if seen.any? { |one| one.nil? || one.standing == :regional }

        JSON.generate(seen.map do |one|
          { at: one.at, temperature: one.temperature, wind_km_h: one.wind, humidity: one.humidity,
            standing: one.standing }
        end)
      end

      # [{ at, temperature, wind_km_h, humidity, standing }] at start, middle and end; empty where they are not known.
      def hours_of_application = JSON.parse(hourly_weather || "[]")

      # The last day on which nobody goes in, and on which nothing is planted, by the label of what was used; nil where
      # it says nothing. Part of a day counts as a day.
      def closed_until = label_days(:reentry_h) { |hours| (hours / 24.0).ceil }
      def unplanted_until = label_days(:plant_back_days, &:ceil)

      # As the rules for records read it.
      def application
        label = product_id && Product[product_id]
        Core::Mix::ApplicationRecord.new(
          product: label&.name, registration: label&.registration, amount: product_ml, mix: mix_ml, done_on:,
          started: started_at, ended: ended_at, place: "#{patch.code}, #{patch.property.name}", area: area_m2,
          site: patch.property.name, target: patch.plant&.scientific, applicator:, certification: licence_number,
          category: licence_category, expiry: licence_expires_on, weather: hourly_weather, equipment:,
          left_over: left_over_ml, written_on: created_at.to_date
        )
      end

      def on = done_on
      def removal = Core::Knowledge.shipped.removal(method_key)
      def conditions = JSON.parse(weather || "{}")

      # Return visits that follow from plant and method: [Core::Recheck::Returns::Visit].
      def returns(plant, site) = Core::Recheck::Returns.new(plant:, removal:, done_on:, site:).visits

      def label_days(fact)
        told = product_id && Product[product_id]&.public_send(fact)
        told&.positive? ? done_on + yield(told) : nil
      end
      private :label_days

      # What was used against what its stubs should have drunk (Core::Mix::StubCheck::Finding); nil for other work.
      def stub_check
        return unless removal.herbicide == :stem && mix_ml && stems_done

        usage = Usage.of(removal, patch.stem_size, except: id) or return
        Core::Mix::StubCheck.new(used_ml: mix_ml, stems: stems_done, usage:).finding
      end

      # What its product's label says against it, sentences: a use that it does not have, a strength outside it, a
      # product that had expired, a licence that had.
      def against_label
        label = product_id && Product[product_id]&.label
        found = []
        if label&.mixable?
          use = Core::Mix::Product.use_of(removal)
          found << label.against(use, 100 * product_ml / mix_ml) if use && product_ml && mix_ml&.positive?
          found << "#{label.name} had expired." if label.expired?(done_on)
        end
        found << "The licence had expired." if licence_expires_on && licence_expires_on < done_on
        found.compact
      end

      # Acids that this record brought past what its product's label allows on the ground in a year: [Core::Mix::Limit].
      def past_label
        label = product_id && Product[product_id]&.label or return []
        lies = Applications.new(patch, done_on.year)
        label.ingredients.filter_map do |one|
          limit = Core::Mix::Limit.new(acid: one.active.acid, lies: lies.most(one.active.acid) || 0.0, planned: 0.0,
                                       most: one.most_g_per_ha)
          limit if limit.over?
        end
      end

      # Corrected to another day, it keeps that day's weather.
      def before_save
        if !new? && changed_columns.include?(:done_on)
          site = patch.property.site(Setting.today)
          self.weather = JSON.generate(self.class.weather(site, done_on))
        end
        if !new? && changed_columns.intersect?(%i[done_on started_at ended_at])
          self.hourly_weather = self.class.hourly(patch.property.site(Setting.today), values)
        end
        super
      end
    end
  end
end
