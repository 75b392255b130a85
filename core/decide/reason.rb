# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What one rule says of one method: kind :no, :ask (nobody knows), :wait, :go or :note, in a sentence, on whose
      # word. Quantities stand in the text as Units#fill reads them. `until` is the day from which this rule no longer
      # waits, once that has been looked up.
      Reason = Value.define(:rule, :kind, :text, :source, :until) do
        # The text in someone's units, metric by default.
        def said(units = Units.new) = units.fill(text)
        def against? = weight > 1
        def weight = { no: 4, ask: 3, wait: 2, go: 1, note: 0 }.fetch(kind)
      end
    end
  end
end
