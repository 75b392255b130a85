# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Natives that suit a patch's light and moisture and take over the jobs the invader did, best first.
      class Shortlist
        LIGHTS = { "sun" => "sun", "part" => "part shade", "shade" => "shade" }.freeze
        MOISTURES = { "dry" => "dry", "moist" => "moist", "wet" => "wet", "water" => "in water" }.freeze
        JOBS = { "ground_cover" => "ground cover", "screen" => "screen", "slope" => "holds a slope", "shade" => "shade",
                 "climber" => "climber", "nectar" => "nectar", "fruit" => "fruit", "winter_green" => "green in winter",
                 "water_habitat" => "water habitat" }.freeze
        Match = Value.define(:plant, :taken_over, :extra, :fits_first, :reasons)

        attr_reader :light, :moisture, :jobs

        # region: only what is at home there; nil for natives of every region.
        def initialize(light:, moisture:, jobs:, region: nil, knowledge: Knowledge.shipped)
          known(light, LIGHTS, :light)
          known(moisture, MOISTURES, :moisture)
          @light, @moisture, @jobs, @region, @knowledge = light, moisture, jobs, region, knowledge
        end

        # [Match]; empty when no native of the library suits the place.
        def matches
          suited.map { |plant| match(plant) }.select { |m| m.taken_over.any? }
                .sort_by { |m| [-m.taken_over.size, m.fits_first ? 0 : 1, -m.extra.size, m.plant.name] }.freeze
        end

        # How many natives were turned down, and for what.
        def passed_over = @knowledge.natives.count(&:replant) - matches.size

        private

        def suited
          @knowledge.natives.select do |plant|
            (site = plant.replant) && at_home?(plant) && site["light"].include?(light) &&
              site["moisture"].include?(moisture)
          end
        end

        def at_home?(plant) = @region.nil? || plant.native_in?(@region)

        def match(plant)
          site = plant.replant
          taken = jobs & site["jobs"]
          Match.new(plant:, taken_over: taken, extra: site["jobs"] - jobs,
                    fits_first: site["light"].first == light && site["moisture"].first == moisture,
                    reasons: ["likes #{LIGHTS[light]} and #{MOISTURES[moisture]} ground",
                              "takes over: #{taken.map { |job| JOBS[job] }.join(", ")}"])
        end

        def known(value, table, field)
          raise BadInput.new("“#{value}” is not one of #{table.keys.join(", ")}.", field:) unless table.key?(value)
        end
      end
    end
  end
end
