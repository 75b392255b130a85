# frozen_string_literal: true

module Thistle
  module Store
    # Model: those who share a shelf, tools, seed and a list of people over one or more properties. A copy begins with
    # one.
    class Group < Sequel::Model(:groups)
      FIRST = 1
      MOST_LETTERS = 80

      one_to_many :properties, class: "Thistle::Store::Property"

      dataset_module do
        def named = order(Sequel.function(:lower, :name), :id)
      end

      # By its name; a new one where none is called so.
      def self.called(name)
        first(Sequel.ilike(:name, dataset.escape_like(name))) || create(name:, created_at: Time.now.utc)
      end

      # A property belongs to this group from now on. Its records keep the people and products that they name.
      def take(property)
        db.transaction do
          property.update(group_id: id)
          property.year_changed if InUse.where(property_id: property.id).delete.positive?
        end
      end
    end
  end
end
