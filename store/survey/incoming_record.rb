# frozen_string_literal: true

module Thistle
  module Store
    # Reading: a row of a file as past work, a check or a planting of a patch that is known by its code. Raises BadInput
    # when it does not say what it must.
    class IncomingRecord
      MODELS = { "treatment" => Treatment, "check" => Check, "planting" => Planting }.freeze
      # The day of each kind, and what makes two of them the same.
      DAY = { "treatment" => :done_on, "check" => :checked_on, "planting" => :done_on }.freeze
      SAME = { "treatment" => %i[done_on method_key], "check" => %i[checked_on resprouts missed seedlings],
               "planting" => %i[done_on native_key] }.freeze

      attr_reader :kind, :values, :notes

      # reading: Core::Survey::RecordColumns::Reading of the row's kind.
      def initialize(row, reading)
        @kind = row[:kind]
        @values, @notes = reading.read(JSON.parse(row[:properties]))
      end

      def code = values[:code]
      def on = values.fetch(DAY.fetch(kind))
      def model = MODELS.fetch(kind)

      # The columns of the record, but for its patch.
      def columns
        found = values.except(:code)
        return found unless kind == "planting"

        found.merge(from_on: on, to_on: on)
      end

      # Is it on record already?
      def known?(patch_id)
        model.where(patch_id:, deleted_at: nil).where(columns.slice(*SAME.fetch(kind))).any?
      end
    end
  end
end
