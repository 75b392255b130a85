# frozen_string_literal: true

module Thistle
  module Store
    # Work that was done on a patch on a day.
    class Treatment < Sequel::Model(:treatments)
      many_to_one :patch, class: "Thistle::Store::Patch"
      one_to_many :tasks, class: "Thistle::Store::Task", order: :due_on

      # Adds a treatment, the return visits that follow from it, and moves the patch.
      def self.record(patch, site, **fields)
        db.transaction do
          day = site.day(fields.fetch(:done_on))
          weather = { tmin: day.tmin, tmax: day.tmax, rain_mm: day.rain, wind_km_h: day.wind, humidity: day.humidity,
                      soil: site.ground(day.date).kind, standing: day.standing }
          treatment = create(patch_id: patch.id, weather: JSON.generate(weather), **fields)
          treatment.answer_tasks
          treatment.plan_returns(site)
          patch.course&.follow(treatment)
          patch.follow_records
          treatment
        end
      end

      def removal = Core::Knowledge.shipped.removal(method_key)
      def conditions = JSON.parse(weather || "{}")

      # What was asked for is done; visits that an earlier treatment asked for give way to this one's.
      def answer_tasks
        kinds = removal.removes? ? %w[treat check] : %w[treat]
        patch.tasks_dataset.where(done_on: nil, kind: kinds).update(done_on:)
      end

      # Return visits from plant and method.
      def plan_returns(site)
        return unless patch.plant

        Core::Recheck::Returns.new(plant: patch.plant, removal:, done_on:, site:).visits.each do |visit|
          Task.create(patch_id:, treatment_id: id, kind: visit.kind, due_on: visit.due_on, reason: visit.text,
                      source: visit.source, event: visit.event && JSON.generate(visit.event.to_data), since_on: done_on)
        end
      end
    end
  end
end
