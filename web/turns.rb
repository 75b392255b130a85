# frozen_string_literal: true

module Thistle
  module Web
    # A long list a page at a time: which page an address asks for, and which are before and after it.
    class Turns
      SIZE = 60

      attr_reader :page, :total

      # dataset: in the order of the list.
      def initialize(dataset, params, size: SIZE)
        @dataset, @size = dataset, size
        @total = dataset.unordered.count
        @page = [Whole.read(params["page"]), 1_000_000].min
      end

      def rows = @rows ||= @dataset.limit(@size, page * @size).all
      def before = page.positive? ? page - 1 : nil
      def after = total > (page + 1) * @size ? page + 1 : nil
    end
  end
end
