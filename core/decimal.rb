# frozen_string_literal: true

module Thistle
  module Core
    # A number as people and files write it: 3.5, 3,5, −3.5, 1 200.
    module Decimal
      # Float, or nil for what is not a finite number.
      def self.read(text)
        plain = text.to_s.strip.tr("−", "-").gsub(/[\s\u00A0\u202F']/, "")
        plain = plain.tr(",", ".") if plain.match?(/\A-?\d+,\d+\z/)
        number = Float(plain, exception: false)
        number if number&.finite?
      end

      # Digits of a whole number with its thousands apart: "12 500".
      def self.apart(digits) = digits.to_s.reverse.gsub(/(\d{3})(?=\d)/, "\\1\u202F").reverse
    end
  end
end
