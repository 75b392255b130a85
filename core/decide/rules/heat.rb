# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Heat = Rule.new(:heat, about: %i[bark_herbicide foliar], source: "memory") do |now|
          next unless now.day

          wait "Above 29 °C product turns to vapour and reaches broadleaf natives." if now.day.tmax > 29
        end
      end
    end
  end
end
