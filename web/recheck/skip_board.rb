# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # What it costs later if nobody comes this year: a property's open patches, those with the most ground first.
      class SkipBoard
        MOST = 40
        OPEN = %w[standing regrowing hit].freeze
        Row = Core::Value.define(:patch, :removal, :hours, :money, :failed, :now)

        attr_reader :property

        def initialize(property, today)
          @property, @today = property, today
        end

        # [Row], what costs the most later first.
        def rows
          @rows ||= wanting.reverse(:gross_m2).limit(MOST).all.map { |patch| row(patch) }.sort_by { |row| -row.money }
        end

        # Open patches beyond those, and those of which nobody knows what they are.
        def others = @others ||= property.live_patches.where(state: OPEN).count - rows.size

        def money = rows.sum(&:money)
        def hours = rows.sum(&:hours)
        def currency = property.rates.currency

        private

        def wanting = property.live_patches.unordered.where(state: OPEN).exclude(plant_key: nil)

        def changed = @changed ||= [Store::Amendment.max(:id), Store::Check.max(:id), Store::Treatment.max(:id)]

        def row(patch)
          patch.associations[:property] = property # one, so that it works its facts out once
          Core::Kept::ANSWERS.fetch([:skip, patch.id, patch.updated_at, patch.state, changed, @today]) do
            read = Store::PatchOutlook.new(patch, @today)
            Row.new(patch:, removal: read.removals.first, **read.skipping)
          end
        end
      end
    end
  end
end
