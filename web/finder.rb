# frozen_string_literal: true

module Thistle
  module Web
    # Finds plants by any of their names, misspelled too, and patches by code or plant.
    class Finder
      attr_reader :query

      def initialize(query)
        @query = query.strip
      end

      def plants = @plants ||= Store::PlantNames.find(query).map { |key| Core::Knowledge.shipped.plant(key) }

      def patches
        return [] if query.empty?

        keys = plants.map(&:key)
        Store::Patch.live.where(Sequel.ilike(:code, "%#{Store::Patch.dataset.escape_like(query)}%") | { plant_key: keys })
                    .order(:code).limit(50).all
      end

      def to_h
        { query:, plants: plants.map { |p| { key: p.key, name: p.name } }, patches: patches.map { |p| { id: p.id, code: p.code } } }
      end
    end
  end
end
