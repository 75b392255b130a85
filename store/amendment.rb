# frozen_string_literal: true

module Thistle
  module Store
    # Model: a record corrected, taken back or brought back: by whom, why, and what it said before. Nothing is ever
    # written over without one, so that both versions stay readable and what the law wants kept is kept.
    class Amendment < Sequel::Model(:amendments)
      ACTS = { "corrected" => "corrected", "taken_back" => "taken back", "brought_back" => "brought back" }.freeze

      # The kinds of records that can be corrected, as an address names them.
      def self.models
        @models ||= { "treatment" => Treatment, "check" => Check, "observation" => Observation, "planting" => Planting,
                      "plan" => SeasonPlan }.freeze
      end

      # The record that an address names, taken back or not; nil for none.
      def self.record(kind, id) = models[kind]&.[](id)

      def values_before = JSON.parse(was, symbolize_names: true)
    end
  end
end
