# frozen_string_literal: true

module Thistle
  module Store
    # Model: one answer that a person gave in practice: kind "name" (which plant) or "method" (what to do).
    class Practised < Sequel::Model(:practice)
      # A person's answers to a kind of question, oldest first, as core's practice reads them.
      def self.of(person, kind)
        where(person:, kind:).order(:id).map do |row|
          Core::Identify::Practice::Answer.new(plant: row.plant_key, answer: row.answer_key, on: row.on)
        end
      end
    end
  end
end
