# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Spacing against weeding: plants farther apart cost less and leave ground open for longer, which somebody weeds.
      # Crowns on a lattice grow to their width as a logistic and spread on from there; the ground is closed where they
      # cover it; hours of weeding go with what is open. Planning values (memory); the cover of discs is geometry.
      class Closing
        YEARS, STEPS = 15, 12 # years that are played at most, and parts of each
        RATE = 1.6 # of the logistic, a year
        START = 0.12 # of its width, that a plug has when it is planted
        SPREAD = { "clumps" => 0.03, "runs_slowly" => 0.1, "runs" => 0.25, "runs_hard" => 0.5 }.freeze # m a year
        CLOSED = 0.9 # of the ground
        WEEDING = 12.0 # hours on 100 m² of open ground in a year
        SETTING = 1.0 / 40 # hours for a plug
        SPACINGS = (15..150).step(5).map { |cm| cm / 100.0 }.freeze
        # spacing: m; plants; setting, weeding: hours; cost: all on 100 m²; closes: years, nil where it does not.
        Choice = Value.define(:spacing, :plants, :setting, :weeding, :closes, :cost) do
          def hours = setting + weeding
        end

        # width_m: of a grown plant; spreads: a key of SPREAD; survives: share that lives; price: of a plant; wage: of
        # an hour. Raises BadInput (field :width).
        def initialize(width_m:, price:, wage:, spreads: "clumps", survives: 0.75)
          raise BadInput.new("The width is above 0.", field: :width) unless width_m.positive?

          @width, @price, @wage, @survives, @spread = width_m, price, wage, survives, SPREAD.fetch(spreads)
        end

        # [Choice], one a spacing.
        def choices = @choices ||= SPACINGS.map { |spacing| at(spacing) }.freeze

        # The Choice that costs least, plants and weeding together.
        def best = choices.min_by { |choice| [choice.cost, choice.spacing] }

        # The Choice of a spacing in m, in triangles.
        def at(spacing)
          plants = 100 / (PlantingRate::GRIDS["triangular"] * spacing * spacing)
          weeding, closes = weed(spacing / Math.sqrt(@survives))
          setting = plants * SETTING
          Choice.new(spacing:, plants: plants.round, setting:, weeding:, closes:,
                     cost: (plants * @price) + ((setting + weeding) * @wage))
        end

        # Share of a plane that discs of a diameter cover on a triangular lattice.
        def self.cover(diameter, spacing)
          r = diameter / 2.0
          return 1.0 if r >= spacing / Math.sqrt(3)

          disc = Math::PI * (r**2)
          if r > spacing / 2.0 # each shares a lens with each of three neighbours on its side
            lens = (2 * (r**2) * Math.acos(spacing / (2 * r))) - (spacing / 2 * Math.sqrt((4 * (r**2)) - (spacing**2)))
            disc -= 3 * lens
          end
          disc / (PlantingRate::GRIDS["triangular"] * (spacing**2))
        end

        private

        # A crown's width after years, m.
        def crown(years)
          (@width / (1 + (((1 / START) - 1) * Math.exp(-RATE * years)))) + (@spread * [years - 1, 0].max)
        end

        # [hours of weeding on 100 m² until it is closed, or for all years; years until then]
        def weed(spacing)
          hours = 0.0
          (0...(YEARS * STEPS)).each do |n|
            years = (n + 0.5) / STEPS
            covered = self.class.cover(crown(years), spacing)
            return [hours, years.round(1)] if covered >= CLOSED

            hours += WEEDING / STEPS * (1 - covered)
          end
          [hours, nil]
        end
      end
    end
  end
end
