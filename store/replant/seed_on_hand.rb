# frozen_string_literal: true

module Thistle
  module Store
    # Model: a lot of seed on the group's shelf, by its tag.
    class SeedOnHand < Sequel::Model(:seed_lots)
      include Live
      include OfGroup

      def native = Core::Knowledge.shipped.native(native_key)

      # As a Core::Replant::SeedLot.
      def to_core
        Core::Replant::SeedLot.new(**values.slice(*Core::Replant::SeedLot::FIELDS))
      end

      # g of each native on the shelf, {key => g}.
      def self.on_shelf
        live.here.group(:native_key).select_hash(:native_key, Sequel.function(:sum, :grams).as(:grams))
      end

      # The lot to sow of each native, {key => SeedLot}: one with a tag before one without, the latest test first;
      # region: of seed from there alone.
      def self.to_sow(region: nil)
        found = region ? live.here.where(origin_region: region) : live.here
        found.all.group_by(&:native_key).transform_values do |lots|
          lots.max_by { |lot| [lot.to_core.tagged? ? 1 : 0, lot.tested_on || Date.new(0), lot.id] }.to_core
        end
      end
    end
  end
end
