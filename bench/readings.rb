# frozen_string_literal: true

module Thistle
  # Specimens that others wrote down without sight of the library (test/fixtures/specimens.yml), keyed on the middle day
  # of their month at the middle of their region.
  module Readings
    module_function

    # The key of all that was seen of one.
    def key(row)
      site, date = site(row["region"]), Date.new(2026, row["month"], 15)
      prior = (@priors ||= {})[[row["region"], date]] ||=
        Core::Identify::Prior.new(chances: Core::Identify::Chances.of(Core::Knowledge.shipped), site:, date:,
                                  region: row["region"])
      Core::Identify::Key.new(row["seen"].transform_values(&:to_s), site:, date:, region: row["region"], prior:)
    end

    # Where the right name stands, or one that what was seen cannot rule out.
    def rank(row, key)
      right = [row["plant"], *row["accept"]]
      key.weights.sort_by { |_, weight| -weight }.index { |plant, _| right.include?(plant.key) } + 1
    end

    def site(region) = (@sites ||= {})[region] ||= StandIns::Grounds.of(region, today: Date.new(2026, 5, 12))
  end
end
