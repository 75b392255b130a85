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
                             **fields)
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

      def on = done_on
      def removal = Core::Knowledge.shipped.removal(method_key)
      def conditions = JSON.parse(weather || "{}")

      # Return visits that follow from plant and method: [Core::Recheck::Returns::Visit].
      def returns(plant, site) = Core::Recheck::Returns.new(plant:, removal:, done_on:, site:).visits

      # What was used against what its stubs should have drunk (Core::Mix::StubCheck::Finding); nil for other work.
      def stub_check
        return unless removal.herbicide == :stem && mix_ml && stems_done

        usage = Usage.of(removal, patch.stem_size, except: id) or return
        Core::Mix::StubCheck.new(used_ml: mix_ml, stems: stems_done, usage:).finding
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
          self.weather = JSON.generate(self.class.weather(patch.property.site(Setting.today), done_on))
        end
        super
      end
    end
  end
end
