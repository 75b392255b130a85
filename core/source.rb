# frozen_string_literal: true

module Thistle
  module Core
    # Where a fact comes from: published (perhaps recalled), common practice, memory, or this land's own records.
    Source = Value.define(:key, :standing, :title, :recalled) do
      # The kind of its mark: its standing, and :recalled of what was published and could not be opened.
      def mark = recalled ? "recalled" : standing

      # Its standing in words: "common practice".
      def label
        { "published" => recalled ? "published, recalled" : "published",
          "common_practice" => "common practice", "memory" => "memory", "own_records" => "own records" }.fetch(standing)
      end
    end
  end
end
