# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What a patch's ground is for, as knowledge/aims.yml gives it. asks: "kill" or "hold"; minds: [{"about", "kind",
      # "text"}].
      Aim = Value.define(:key, :label, :text, :asks, :minds, :source) do
        # What it minds most about a method, {"kind", "text"}; nil for nothing.
        def of(removal)
          minded = minds.select { |row| Rule.concerns?(row["about"].map(&:to_sym), removal) }
          minded.max_by { |row| row["kind"] == "no" ? 1 : 0 }
        end

        def holds? = asks == "hold"
      end
    end
  end
end
