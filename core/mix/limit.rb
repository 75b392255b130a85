# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What a label allows of an acid on a hectare in a year, against what lies there and what is planned.
      Limit = Value.define(:acid, :lies, :planned, :most, :source) do
        # After what is planned, g on a hectare.
        def after = lies + planned
        def over? = !most.nil? && after > most + 1e-6
        def left = most && [most - lies, 0].max
      end

      # What labels together allow.
      class Limit
        # {acid => the strictest most of a year, g on a hectare} of products; acids that no label limits are left out.
        def self.allowed(products)
          told = products.select(&:labelled?).flat_map(&:ingredients).select(&:most_g_per_ha)
          told.group_by { |one| one.active.acid }.transform_values { |some| some.map(&:most_g_per_ha).min }
        end
      end
    end
  end
end
