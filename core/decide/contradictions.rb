# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Facts that cannot both be so. Nothing is thrown away: each is said, and the stricter reading holds.
      class Contradictions
        Clash = Value.define(:fields, :text)
        SEEDY = %i[flower green_seed ripe_seed].freeze
        WARM = 12.0 # °C at which ground is not frozen

        # In cm at the base, what each size is up to (memory; a wrist is about 8 cm by common practice).
        UP_TO_CM = { "seedling" => 0.5, "pencil" => 1.2, "thumb" => 3.0, "wrist" => 10.0,
                     "wider" => Float::INFINITY }.freeze

        # The size class of a stem measured in cm.
        def self.size_of(diameter) = UP_TO_CM.find { |_, most| diameter <= most }.first

        # diameter: cm, where someone measured a stem; chosen: the size that was said beside it.
        def initialize(bench, diameter: nil, chosen: bench.facts.size)
          @facts, @now, @diameter, @chosen = bench.facts, bench.situation, diameter, chosen
        end

        def all = [size, seed, water, frost, plants, counts, nobody, tools].compact

        private

        def size
          return unless @diameter && @chosen && self.class.size_of(@diameter) != @chosen

          measured = self.class.size_of(@diameter).then { |size| size == "wider" ? "wider than a wrist" : "a #{size}" }
          clash(:size, "A stem {depth:#{@diameter}} wide is no #{@chosen}: it is #{measured}. " \
                       "The wider of the two is taken.")
        end

        def seed
          return unless @facts.plant.woody? && %w[seedling pencil].include?(@facts.size) && SEEDY.include?(@facts.stage)

          clash(:stage, "A #{@facts.size} has no flowers or fruit. Check the size or the stage.")
        end

        def water
          return unless @facts.plant.aquatic? && @facts.water_m&.positive?

          clash(:water_m, "It grows in water, yet water is said to be {length:#{@facts.water_m.round}} away.")
        end

        def frost
          return unless @facts.soil == :frozen && @now.day && @now.day.tmin > WARM

          clash(:soil, "The ground is not frozen on a night of {temperature:#{@now.day.tmin.round}}.")
        end

        def plants
          return unless @facts.plants && @facts.stems && @facts.stems < @facts.plants

          clash(:plants, "#{@facts.plants} plants have at least as many stems: #{@facts.stems} are said.")
        end

        def counts
          sizes = @facts.seedlings ? @facts.sizes&.except("seedling") : @facts.sizes # those stand beside the stems
          counted = sizes&.values&.sum
          return unless counted&.positive? && @facts.stems && counted != @facts.stems

          clash(:stems, "Sizes add up to #{counted}, the stems to #{@facts.stems}.")
        end

        def nobody
          clash(:crew, "With no people, no method is possible. Each method shows its reason.") if @facts.crew&.zero?
        end

        def tools
          (clash(:tools, "With no tools at hand only looking and reporting are left.") if @facts.tools &&
           @facts.tools.empty?)
        end

        def clash(field, text) = Clash.new(fields: [field], text:)
      end
    end
  end
end
