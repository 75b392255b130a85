# frozen_string_literal: true

require "matrix"

module Thistle
  module Core
    module Recheck
      # How a plant's stand goes from one year to the next: a range for each parameter, by its own file, else its
      # traits, else its form (knowledge/stages.yml, which says what each is).
      class Stages
        # low, high: tenth and ninetieth of a hundred patches; from: :plant, :trait, :form or :any.
        Spread = Value.define(:low, :likely, :high, :source, :from)
        PARAMETERS = %w[germination stirred seedlings juveniles adults to_seed fecundity resprout seeds_on creep
                        daughters wakes pieces piece_shoots crowd stood].freeze
        SHARES = %w[germination stirred seedlings juveniles adults resprout seeds_on daughters piece_shoots bank
                    piece_keep found found_small kill kill_small].freeze
        # Of the seed, in ground that nobody stirs, or of the pieces that show nothing, what is left after as many years
        # as they are said to live; what comes up is part of the loss of seed.
        SPENT = 0.01
        LEAST_YEARS = 0.1 # that anything is said to live

        # Raises BadInput (field: the parameter) for a range in `changes`, {parameter => {low, likely, high}}, that
        # cannot be.
        def initialize(plant, knowledge: Knowledge.shipped, changes: {})
          @plant, @table = plant, knowledge.stages
          @changes = changes.to_h { |name, range| [name.to_s, checked(name.to_s, range)] }
        end

        attr_reader :plant

        # Is its whole life one year?
        def annual? = @plant.is?(:annual)

        # Does it bear seed that comes up?
        def seeds? = !bank_years.nil?

        # {parameter => Spread} of everything that a future is drawn from.
        def ranges
          names = [*PARAMETERS, "bank", "piece_keep", *@table["visit"].keys]
          @ranges ||= names.to_h { |name| [name, range(name)] }.freeze
        end

        # The Stages of a plant of the library as it stands, made once.
        def self.of(plant) = (@of ||= {}.compare_by_identity)[plant] ||= new(plant)

        # {parameter => its likely value}.
        def likely = @likely ||= ranges.transform_values(&:likely).freeze

        # The Range of a parameter.
        def range(name)
          case name
          when "bank" then lasting(bank_years, @plant.seed && @plant.seed["source"])
          when "piece_keep" then lasting(@plant.fragment_years, @plant.fragments && @plant.fragments["source"])
          when "fecundity" then seeds? ? told(name) : Spread.new(low: 0, likely: 0, high: 0, source: @table["source"])
          else told(name)
          end
        end

        # What it took from form, trait or nowhere, since the plant's own file does not say.
        def taken = PARAMETERS.reject { |name| range(name).from == :plant }

        # The matrix of a stand with room for all: stages [seed, seedling or shoot, adult] a year, at likely values.
        def matrix
          at = likely
          ripe = 1.0 / [at["to_seed"] - 1, 1].max
          return annual_matrix(at) if annual?

          grown = at["creep"] * at["daughters"]
          [[left(at), 0, at["fecundity"]],
           [at["germination"] * at["seedlings"], at["juveniles"] * (1 - ripe), at["creep"] - grown],
           [0, at["juveniles"] * ripe, at["adults"] + grown]]
        end

        # Times that an untouched stand with room grows in a year: the matrix's dominant eigenvalue.
        def growth_rate = @growth_rate ||= self.class.growth_rate(matrix)

        # Of seed in the ground, what is left a year later, what came up counted in; likely.
        def left(at = likely)
          [at["bank"], (1 - at["germination"]) * Futures::MOST_KEPT].min
        end

        # The dominant eigenvalue of a square matrix of numbers of 0 or more (Perron and Frobenius).
        def self.growth_rate(rows)
          ::Matrix[*rows.map { |row| row.map(&:to_f) }].eigen.eigenvalues.map(&:abs).max
        end

        # How far its seed goes, mean metres: [{low, likely, high}], by the ways that its file names.
        def carried
          ways = @plant.dispersal ? @plant.dispersal["by"] : []
          own = @plant.dispersal&.fetch("metres", nil) || {}
          [@table["carried"]["falling"], *@table["carried"].merge(own).values_at(*ways).compact]
        end

        def seedling = @table["seedling"]

        private

        def bank_years = @plant.is?(:seeds) ? @plant.seed_bank_years : nil

        def annual_matrix(at) = [[left(at) + (at["germination"] * at["seedlings"] * at["fecundity"])]]

        def told(name)
          return @changes[name] if @changes.key?(name)

          from, row = places(name).find { |_, table| table&.key?(name) }
          row = row.fetch(name)
          source = from == :plant ? @plant.stages["source"] : @table["source"]
          Spread.new(**row.slice("low", "likely", "high").transform_keys(&:to_sym), from:, source:)
        end

        # Where a value is looked for, in order.
        def places(name)
          traits = @table["traits"].select { |trait, row| @plant.is?(trait.to_sym) && row.key?(name) }.values.last
          [[:plant, @plant.stages], [:trait, traits], [:form, @table["forms"][@plant.form.to_s]], [:any, @table["any"]],
           [:any, @table["visit"]]]
        end

        # The share that lives on a year, of what is spent in so many.
        def lasting(years, source)
          return Spread.new(low: 0, likely: 0, high: 0, source: @table["source"]) unless years

          low, likely, high = years.values_at("low", "likely", "high").map do |n|
            SPENT**(1 / [n, LEAST_YEARS].max.to_f)
          end
          Spread.new(low:, likely:, high:, source:, from: :plant)
        end

        def checked(name, range)
          low, likely, high = range.transform_keys(&:to_s).values_at("low", "likely", "high")
          sound = [low, likely, high].all? { |n| n.is_a?(Numeric) && n.to_f.finite? && n >= 0 } &&
                  low <= likely && likely <= high && (!SHARES.include?(name) || high <= 1)
          return Spread.new(low:, likely:, high:, source: "own_records", from: :plant) if sound

          within = ", from 0 to 1" if SHARES.include?(name)
          raise BadInput.new("Low, likely and high have to rise#{within}.", field: name)
        end
      end
    end
  end
end
