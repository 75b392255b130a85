# frozen_string_literal: true

module Thistle
  module Web
    # The patches listed beside the map: those in view, those that the words name, a page at a time.
    class PatchList
      PAGE = 60
      ORDER = "CASE state WHEN 'standing' THEN 0 WHEN 'regrowing' THEN 1 WHEN 'reported' THEN 2 WHEN 'hit' THEN 3 WHEN 'quiet' THEN 4 ELSE 5 END"

      attr_reader :words, :page

      def initialize(property, params)
        @property = property
        @box, @words = Store::InView.box(params["bbox"]), params["q"].to_s.strip
        @page = [params["page"].to_i, 0].max
      end

      def total = @total ||= dataset.count
      def patches = @patches ||= dataset.order(Sequel.lit(ORDER), Sequel.function(:length, :code), :code).limit(PAGE, page * PAGE).all
      def more? = total > (page + 1) * PAGE
      def all = @all ||= @property.live_patches.count
      def bbox = @box&.join(",")

      private

      def dataset
        found = @property.live_patches.unordered
        found = found.within(@box) if @box
        if words.empty?
          found
        else
          found.where(Sequel.ilike(:code,
                                   "%#{found.escape_like(words)}%") | { state: words.downcase } | { plant_key: Store::PlantNames.find(words) })
        end
      end
    end
  end
end
