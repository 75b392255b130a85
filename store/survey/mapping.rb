# frozen_string_literal: true

module Thistle
  module Store
    # Model: which of a file's columns is which of ours: guessed by name, remembered for files of the same columns.
    class Mapping < Sequel::Model(:mappings)
      # {their column => ours} as it was kept for these columns, else as guessed.
      def self.for(headers, guessed)
        kept = first(columns: sign(headers))
        kept ? JSON.parse(kept.mapping) : guessed
      end

      def self.remember(headers, chosen)
        dataset.insert_conflict(target: :columns, update: { mapping: JSON.generate(chosen) })
               .insert(columns: sign(headers), mapping: JSON.generate(chosen))
      end

      NAMES = "names"

      # {text of a file, in small letters => plant key} that people settled for any file so far.
      def self.names = first(columns: NAMES).then { |kept| kept ? JSON.parse(kept.mapping) : {} }

      def self.remember_names(chosen)
        told = JSON.generate(names.merge(chosen))
        dataset.insert_conflict(target: :columns, update: { mapping: told }).insert(columns: NAMES, mapping: told)
      end

      def self.sign(headers) = JSON.generate(headers.map(&:to_s).sort)
      private_class_method :sign
    end
  end
end
