# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # Makes a plan of a mix that was solved.
      class PlanDesk
        REASON = 300 # characters

        def initialize(mix, reason, today)
          @mix, @reason, @today = mix, reason, today
        end

        # The Store::PlantingPlan; nil when something cannot be, with the complaint on the form.
        def make
          return unless @mix.asked? && !@mix.answer.impossible
          return failed(:reason, "Say why a species of a nearby region.") if @mix.from_nearby.any? && @reason.empty?
          return failed(:reason, "The reason is at most #{REASON} characters.") if @reason.size > REASON

          rows = @mix.amounts.rows
          return if rows.empty?

          written(rows)
        rescue Core::BadInput => e
          failed(e.field, "cannot be: #{e.message}")
        end

        private

        def written(rows)
          form, desk = @mix.form, @mix.desk
          said = Core::Replant::SiteSheet::CHOICES.keys.to_h { |key| [key, desk.sheet[key]] }.compact
          mix = rows.map { |row| item(row) }
          Store::PlantingPlan.make(desk.patch, kind: form.kind, area_m2: form.m2, mix:, said:, today: @today,
                                               grid: form.values[:grid], reason: @reason,
                                               sowing: form.sowing)
        end

        def item(row)
          spacing_m = @mix.seed? ? nil : @mix.form.spacing_m || (row.native.spacing_cm / 100.0)
          Store::PlantingPlan::Item.new(native: row.native, share: row.share, spacing_m:, count: row.count,
                                        bulk_g: row.bulk_g)
        end

        def failed(field, message)
          @mix.form.failed(field, message)
          nil
        end
      end
    end
  end
end
