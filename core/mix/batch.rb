# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # How much stock and carrier make a volume at a target strength: C1 V1 = C2 V2. Strengths are percent
      # active ingredient, volumes mL. The working says each step; the label goes before every figure.
      class Batch
        Mixture = Value.define(:active, :target, :total_ml, :stock_ml, :carrier_ml, :loads, :load_ml, :last_load_ml,
                               :product_share, :acid_equivalent_g, :working) do
          # For JSON: mL, percent and grams, the working as plain data.
          def to_h
            { active: active.key, target_percent_ai: target, total_ml: total_ml.round(2), stock_ml: stock_ml.round(2),
              carrier_ml: carrier_ml.round(2), loads:, load_ml: load_ml.round(2), last_load_ml: last_load_ml.round(2),
              product_percent: (product_share * 100).round(3), acid_equivalent_g: acid_equivalent_g.round(2),
              working: working.map(&:to_json_data) }
          end
        end
        MAX_ML = 5_000_000.0 # a batch larger than 5 m³ is a slip of the pen

        # total_ml: what the work needs. container_ml: what the jar or tank holds.
        def initialize(active:, target:, total_ml:, stock: active.stock, container_ml: nil, need: [])
          @active, @need = active, need
          @target, @stock, @total, @container = [target, stock, total_ml, container_ml || total_ml].map(&:to_f)
          check
        end

        # The Mixture: mL of stock and carrier, loads of the container, the last one's mL, and the working.
        def mixture
          Mixture.new(active: @active, target: @target, total_ml: @total, stock_ml: stock_ml,
                      carrier_ml: @total - stock_ml,
                      loads: loads, load_ml: [@container, @total].min,
                      last_load_ml: @total - ((loads - 1) * [@container, @total].min),
                      product_share: share, acid_equivalent_g: acid_equivalent, working: (@need + steps).freeze)
        end

        private

        def share = @target / @stock
        def stock_ml = @total * share
        def loads = ((@total / @container) - 1e-9).ceil.clamp(1, nil)

        # Grams of acid in the batch, taking 1 mL of stock as 1 g for planning, as percent by weight does.
        def acid_equivalent = stock_ml * @stock / 100 * @active.acid_share

        def check
          unless @stock.positive? && @stock <= 100
            refuse :stock, "The stock's strength is more than 0 and at most 100 %."
          end
          refuse :target, "The target is more than 0 %." unless @target.positive?
          if @target > @stock
            refuse :target, "#{short(@target)} % is stronger than the stock's #{short(@stock)} %: no mixing makes that."
          end
          refuse :amount, "Nothing to mix for: give stems or an area." unless @total.positive?
          refuse :amount, "More than 5 000 L: check the amount." if @total > MAX_ML
          refuse :container, "The container holds more than nothing." unless @container.positive?
        end

        def refuse(field, message) = raise(BadInput.new(message, field:))

        def steps
          [step("Share of stock", "#{short(@target)} % ÷ #{short(@stock)} %", "#{short(share * 100)} % of the volume"),
           step("Stock", "#{said(@total)} × #{short(@target)} ÷ #{short(@stock)}", stock_ml, unit: :volume),
           step("Carrier (#{@active.carrier})", "#{said(@total)} − #{said(stock_ml)}", @total - stock_ml,
                unit: :volume),
           step("Acid equivalent of the active", "#{@active.acid_molar_mass} ÷ #{@active.salt_molar_mass} g/mol",
                format("%.4f", @active.acid_share), source: "molar_mass")]
        end

        def step(label, formula, value, unit: nil, source: "dilution")
          Step.new(label:, formula:, value:, unit:, source:)
        end

        def said(ml) = "{volume:#{ml.round(3)}}"
        def short(number) = number.round(3).to_s.sub(/\.0+\z/, "")
      end
    end
  end
end
