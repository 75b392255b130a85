# frozen_string_literal: true

module Thistle
  module Web
    # What was sent, looked at once before anything reads it: text is text, one answer is one, and only what may hold
    # several does.
    module Sent
      # Names whose answer has parts: lists, answers by key, uploads.
      PARTED = %w[c not s w tools jobs plants found column file world photos splat captures roles training cannot who
                  have ways f take ban ids name named parts plants cell duties].freeze
      # Control characters but tab and line ends.
      CONTROL = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F]/
      DEEP = 4

      module_function

      # What cannot be read, in words; nil when all of it can.
      def fault(params)
        return "That holds characters that are no text (UTF-8)." unless text?(params)

        name, = params.find { |key, value| !value.nil? && !value.is_a?(String) && !PARTED.include?(key) }
        "“#{name[0, 40]}”: choose one answer only." if name
      end

      # Is every text in it valid UTF-8 without control characters, and nothing deeper than a form goes?
      def text?(value, depth = 0)
        case value
        when Hash then depth < DEEP && value.all? { |key, inner| text?(key) && text?(inner, depth + 1) }
        when Array then depth < DEEP && value.all? { |inner| text?(inner, depth + 1) }
        when String then plain?(value.dup.force_encoding(Encoding::UTF_8))
        else true
        end
      end

      def plain?(text) = text.valid_encoding? && !text.match?(CONTROL)
      private_class_method :text?, :plain?
    end
  end
end
