# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # What happened on a ground and what of it still holds: of a patch, or of any place on the property.
      class GroundDesk
        AIR = [0.0012, 0.0009].freeze # degrees around it on the map, east and north

        attr_reader :patch, :form

        # patch: one whose ground is meant, or nil; form: Forms::Here, the place, where no patch is named.
        def initialize(property, today, patch: nil, form: nil)
          @property, @today, @patch, @form = property, today, patch, form
        end

        # The Store::GroundHistory; nil until a place is said.
        def history
          @history ||= if patch then patch.history
                       elsif form.shape then Store::GroundHistory.at(@property, form.shape)
                       end
        end

        # [Store::ClosedGround::Entry] of the whole property that hold today.
        def closed_anywhere = @closed_anywhere ||= Store::ClosedGround.of([@property.id], @today)

        # [Store::ClosedGround::Entry] that hold today, [Core::Mix::Wait] of what stays in the soil.
        def closed = @closed ||= history.closed(@today)
        def waits = @waits ||= history.soil_waits(@today)

        # [[patch, what stands (There)]] today.
        def standing = @standing ||= shape ? history.standing_on(@today) : []

        # Every spraying on record, the last first: [Treatment].
        def sprayed = @sprayed ||= history.sprayed(Date.new(1900)..@today).map(&:first).reverse

        # [Planting] in the ground, the last first.
        def plantings = @plantings ||= history.plantings.reverse

        def young?(planting) = planting.done_on > @today - Store::GroundHistory::YOUNG

        # Where it is asked for: the patch's code, or the place.
        def name = patch&.code || Words.position(*form.values.values_at(:lat, :lon))

        # [west, south, east, north] of the map.
        def bounds
          return @property.bounds unless shape

          west, south, east, north = shape.bounds
          [west - AIR[0], south - AIR[1], east + AIR[0], north + AIR[1]]
        end

        # For the map: the place that was asked for.
        def drawn = shape && !patch ? [{ geometry: shape.geometry, style: "route", label: "?" }] : []

        private

        def shape = history&.ground || patch&.shape
      end
    end
  end
end
