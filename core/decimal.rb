# frozen_string_literal: true

module Thistle
  module Core
    # A number as people and files write it: 3.5, 3,5, −3.5, 1 200, 1,200,000.
    module Decimal
      # One comma before three digits: thousands for some, a decimal mark for others.
      DOUBTFUL = /\A-?[1-9]\d{0,2},\d{3}\z/
      PLAIN = /\A-?\d{1,12}(\.\d{1,6})?\z/ # what most are
      GROUPED = /\A-?[1-9]\d{0,2}(,\d{3})+(,\d{3}|\.\d+)\z/
      DOUBT = "can be read in two ways: leave the comma out, or write a point for decimals"

      # What is typed or filed here lies between the two; what is less is nothing, what is more is no number of ours.
      LEAST, MOST = 1e-12, 1e12

      # Float, or nil for what is no number up to `most`. comma: what a doubtful one means, :thousands, :decimal, or
      # :ask for nobody knows, which is no number.
      def self.read(text, comma: :ask, most: MOST)
        plain = text.to_s
        plain = bare(text) unless plain.match?(PLAIN)
        thousands = plain.match?(GROUPED) || (comma == :thousands && plain.match?(DOUBTFUL))
        return if comma == :ask && plain.match?(DOUBTFUL)

        plain = plain.delete(",") if thousands
        plain = plain.tr(",", ".") if plain.match?(/\A-?\d+,\d+\z/)
        number = Float(plain, exception: false)
        return unless number&.finite? && number.abs <= most

        number.abs < LEAST ? 0.0 : number
      end

      # Could a comma in it be read in two ways?
      def self.doubtful?(text) = bare(text).match?(DOUBTFUL)

      # What is wrong with a text that is no number: its comma, else what others say.
      def self.complaint(text, otherwise) = doubtful?(text) ? DOUBT : otherwise

      def self.bare(text) = text.to_s.strip.tr("−", "-").gsub(/[\s\u00A0\u202F']/, "")
      private_class_method :bare

      # Digits of a whole number with its thousands apart: "12 500".
      def self.apart(digits) = digits.to_s.reverse.gsub(/(\d{3})(?=\d)/, "\\1\u202F").reverse
    end
  end
end
