# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # A broad region in which a plant may be looked for (knowledge/regions.yml). beside: keys of those it runs into.
      Region = Value.define(:key, :label, :source, beside: [], south: false) do
        alias_method :south?, :south
      end
    end
  end
end
