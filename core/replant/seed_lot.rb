# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Seed by its tag: how much of a gram is live seed. What no tag says is a planning value, and said to be one.
      class SeedLot
        YEAR = 365 # days for which a test of germination is taken to hold (common practice)
        # purity and germination of seed without a tag, cleaned and as it was gathered (memory)
        PLANNED = { true => [0.9, 0.75], false => [0.35, 0.6] }.freeze
        FIELDS = %i[purity germination dormant cleaned tested_on grams cost_g name].freeze

        attr_reader(*FIELDS)

        # purity, germination: shares or nil; dormant: share that is hard or dormant, and lives; cleaned: or as
        # gathered; tested_on: a date or nil. Raises BadInput (field :purity, :germination, :dormant or :grams).
        def initialize(name: nil, purity: nil, germination: nil, dormant: nil, cleaned: true, tested_on: nil,
                       grams: nil, cost_g: nil)
          { purity:, germination: }.each do |field, value|
            next if value.nil? || (value.positive? && value <= 1)

            raise BadInput.new("#{field.to_s.capitalize} is above 0 and at most 100 %.", field:)
          end
          unless dormant.to_f.between?(0, 1 - germination.to_f + 1e-9)
            raise BadInput.new("Germination and what is hard or dormant are at most 100 % together.", field: :dormant)
          end
          raise BadInput.new("The amount is 0 or more.", field: :grams) if grams&.negative?

          @name, @purity, @germination, @dormant = name, purity, germination, dormant
          @cleaned, @tested_on, @grams, @cost_g = cleaned, tested_on, grams, cost_g
          freeze
        end

        # Pure live seed, a share of its weight.
        def live = purity_used * germination_used
        def purity_used = purity || PLANNED.fetch(cleaned)[0]
        # With what is hard or dormant: it lives, and comes later (PLS = purity × (germination + hard or dormant)).
        def germination_used = germination ? germination + dormant.to_f : PLANNED.fetch(cleaned)[1]

        # Does its own tag say both?
        def tagged? = !purity.nil? && !germination.nil?
        def source = tagged? ? "pure_live_seed" : "memory"

        # Is its test too old to be believed?
        def out_of_date?(today) = tagged? && (tested_on.nil? || today - tested_on > YEAR)
      end
    end
  end
end
