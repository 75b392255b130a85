# frozen_string_literal: true

module Thistle
  module Core
    # Something a person gave us that cannot be right. `field` names where, the message says what was wrong.
    class BadInput < StandardError
      attr_reader :field

      def initialize(message, field: :base)
        super(message)
        @field = field
      end
    end
  end
end
