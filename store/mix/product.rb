# frozen_string_literal: true

module Thistle
  module Store
    # Model: a product on the shelf, as somebody typed it from its label. It belongs to the group, not to one property.
    class Product < Sequel::Model(:products)
      plugin :optimistic_locking

      include Live
      include OfGroup

      dataset_module do
        def named = order(Sequel.function(:lower, :name), :id)
      end

      # Columns that Core::Mix::Product knows by the same name.
      PLAIN = (Core::Mix::Product::FIELDS & columns) - [:name]

      # Columns that are of the container, or of the record itself, and not of the label.
      BESIDE_LABEL = %i[id kept_at counted_ml counted_at counted_on lock_version deleted_at created_at
                        updated_at].freeze

      # A slip of the pen is put right: earlier records go by the correction, too.
      attr_accessor :mistyped

      # On the group's shelf, by its number; nil for none.
      def self.at_hand(id) = live.here.first(id:)

      # May records of the group at hand name it: is it on its shelf, or poured on its ground already?
      def self.at_hand?(id)
        return true unless here.where(id:).empty?

        poured = Sequel[product_id: id] | Sequel[second_product_id: id]
        !where(id:).empty? && !Treatment.of_group(Acting.group_id).where(poured).empty?
      end

      # {product_id => mL used} of live records since each was counted.
      def self.used
        %w[product second_product].each_with_object({}) do |which, all|
          taken_as(which).each { |id, ml| all[id] = all.fetch(id, 0) + ml }
        end
      end

      # The same of the first or of the second product in the tank.
      def self.taken_as(which)
        work, product = Sequel[:treatments], Sequel[:products]
        taken = Sequel.function(:coalesce, Sequel.function(:sum, work[:"#{which}_ml"]), 0).as(:ml)
        db[:treatments].join(:products, id: work[:"#{which}_id"])
                       .where(work[:deleted_at] => nil).where(since_count(work, product))
                       .group(work[:"#{which}_id"]).select_hash(work[:"#{which}_id"], taken)
      end

      # Of the days after it was counted, and of that day what was written down since: work of before is in the count,
      # whenever it was written down.
      def self.since_count(work, product)
        written, day = work[:created_at] >= product[:counted_at], product[:counted_on]
        ((day =~ nil) & written) | (work[:done_on] > day) | ((work[:done_on] =~ day) & written)
      end
      private_class_method :taken_as, :since_count

      # As core computes with it.
      def label
        @label ||= Core::Mix::Product.new(id:, name:, ingredients:, uses: uses_said, **values.slice(*PLAIN))
      end

      def ingredients
        printed.map do |row|
          Core::Mix::Ingredient.printed(active: Core::Knowledge.shipped.actives.fetch(row["active"]),
                                        **row.except("active").transform_keys(&:to_sym))
        end
      end

      # What the label prints of each active, as it was typed: [{"active", "percent" or "acid_percent", …}].
      def printed = JSON.parse(actives)

      def uses_said
        JSON.parse(uses).map { |row| Core::Mix::Product::Use.new(**row.transform_keys(&:to_sym)) }
      end

      # mL that are left: what was counted less what live records took since; nil where nobody counted.
      def on_hand_ml(used = Product.used) = counted_ml && (counted_ml - used.fetch(id, 0))

      # Counted by hand on a day: from then on records count down from here.
      def count(millilitres, day) = update(counted_ml: millilitres, counted_at: Time.now.utc, counted_on: day)

      # What its label says of the weather, as Core::Season::Limits#under takes it.
      def limits = values.slice(*InUse::LIMITS).compact

      # Off the shelf, or back on it; records keep its name.
      def take_off = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)

      # What the label says, by column.
      def said = values.except(*BESIDE_LABEL)

      # What it said before stays for the records of before.
      def before_update
        super
        was = self.class[id]
        return if mistyped || was.nil? || was.said == said

        LabelVersion.create(product_id: id, version: was.lock_version, said: JSON.generate(was.said),
                            created_at: Time.now.utc)
      end

      # The year of properties where it is in use rests on what its label says.
      def after_save
        super
        @label = nil
        InUse.where(product_id: id).select_map(:property_id).uniq.each { |one| Property[one].year_changed }
      end
    end
  end
end
