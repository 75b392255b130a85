# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What lies of one acid on each piece of ground in a year: applications add up where their ground overlaps.
      class Ledger
        # grams of acid on ground, a Shape that is an area; treated_m2: how much of it was treated, where that is known.
        Entry = Value.define(:id, :on, :ground, :grams, :treated_m2) do
          # On what was treated, or on all of the ground.
          def g_per_ha = grams / [treated_m2, area].compact.select(&:positive?).min * 10_000
          def area = ground.area
        end
        Piece = Value.define(:ground, :g_per_ha, :entries)
        MOST_PIECES = 400 # past which all that meet are taken to overlap everywhere: never too little

        attr_reader :entries

        def initialize(entries)
          @entries = entries
        end

        # [Piece] of a ground, the heaviest first.
        def pieces(ground)
          @entries.reduce([Piece.new(ground:, g_per_ha: 0.0, entries: [])]) do |pieces, entry|
            next pieces.map { |piece| under(piece, entry) } if pieces.size > MOST_PIECES

            pieces.flat_map { |piece| parted(piece, entry) }
          end.sort_by.with_index { |piece, n| [-piece.g_per_ha, n] }
        end

        # The most that lies anywhere on a ground, g on a hectare.
        def most(ground) = pieces(ground).first.g_per_ha

        private

        def parted(piece, entry)
          return [under(piece, entry)] if same?(piece.ground, entry.ground)

          inside = Survey::Overlay.intersection(piece.ground, entry.ground) or return [piece]
          outside = Survey::Overlay.difference(piece.ground, entry.ground)
          [under(piece.with(ground: inside), entry), outside && piece.with(ground: outside)].compact
        end

        def under(piece, entry)
          piece.with(g_per_ha: piece.g_per_ha + entry.g_per_ha, entries: piece.entries + [entry])
        end

        def same?(one, other) = one.equal?(other) || one.geometry == other.geometry
      end
    end
  end
end
