# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What the mix room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        module_function

        def bench(desk)
          { vessel: desk.vessel, method: desk.removal.key, errors: desk.errors,
            objections: desk.objections.map { |text, source| { text:, source: } }, answer: desk.answer&.to_h }
        end
      end
    end
  end
end
