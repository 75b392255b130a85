# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # Two counts of what still stands, as they were typed.
      class RecountDesk
        FIELDS = %w[one other both].freeze

        attr_reader :errors

        def initialize(params)
          @params, @errors = params, {}
        end

        def [](field) = @params[field.to_s].to_s
        def error(field) = errors[field.to_sym]

        # The Core::Work::Recount, nil until all three are typed.
        def answer
          return if FIELDS.any? { |field| self[field].empty? }

          counts = FIELDS.to_h { |field| [field.to_sym, Integer(self[field], 10, exception: false) || -1] }
          Core::Work::Recount.new(**counts)
        rescue Core::BadInput => e
          @errors[e.field] = e.message
          nil
        end
      end
    end
  end
end
