# frozen_string_literal: true

module Thistle
  module Store
    # Model: a look at what came back.
    class Check < Sequel::Model(:checks)
      many_to_one :patch, class: "Thistle::Store::Patch"
      many_to_one :treatment, class: "Thistle::Store::Treatment"

      include Amendable

      # Adds a look at what came back; visits, the course and the patch's state follow.
      def self.record(patch, **fields)
        db.transaction do
          check = create(patch_id: patch.id, cover_before: patch.cover_class, **fields)
          FollowUps.settle(patch)
          patch.figures.follow_cover
          check.refresh
        end
      end

      def on = checked_on
      SIGHTS = { "open" => "open", "patchy" => "patchy", "dense" => "dense" }.freeze
      SEEDLINGS = { "none" => "none", "some" => "some, not counted", "counted" => "counted",
                    "frame" => "counted in a frame" }.freeze
      NATIVES = { "none" => "none yet", "some" => "some", "many" => "many" }.freeze

      def alive = resprouts + missed + suckers + young

      # Seedlings of the whole ground: as counted, or as many as frames say.
      def young
        return seedlings unless frame_count && frame_m2

        ground = patch.infested&.first || patch.gross_m2 || frame_m2
        [seedlings, (frame_count / frame_m2 * [ground, frame_m2].max).round].max
      end

      def live? = alive.positive? || seedlings_seen == "some" || (cover_class || 0) > 1

      # The chance that it would have seen what lives on a ground of so many m²; nil where nobody said how it was
      # searched.
      def detects(square_m) = Core::Recheck::Alive.detection(people: searchers, minutes:, sight:, m2: square_m)

      # Control of the stems that were treated; nil when they were not counted.
      def control
        return @control if defined?(@control)

        treated = treatment&.stems_done
        beside = untreated ? { untreated:, untreated_alive: untreated_alive.to_i } : {}
        counted = treated && resprouts <= treated
        @control = counted ? Core::Recheck::Control.of(treated:, alive: resprouts, **beside) : nil
      end

      # Control of each thickness that was counted when it was treated and now: {size => Core::Recheck::Control}.
      def by_size
        return {} unless alive_by_size && treatment&.stems_by_size

        alive = JSON.parse(alive_by_size)
        JSON.parse(treatment.stems_by_size).filter_map do |size, treated|
          left = alive[size]
          [size, Core::Recheck::Control.of(treated:, alive: left)] if left && treated.positive? && left <= treated
        end.to_h
      end

      # The same against untreated ground beside (Core::Recheck::Control), nil where none was counted.
      def corrected = control&.corrected

      # What it asks for, where something lives.
      def again
        found = { "resprouts" => resprouts, "missed" => missed, "suckers" => suckers, "seedlings" => young }
        words = found.select { |_, n| n.positive? }.map { |what, n| "#{n} #{n == 1 ? what.delete_suffix("s") : what}" }
        words << "seedlings" if young.zero? && seedlings_seen == "some"
        "Treat again: #{words.empty? ? "cover is left" : words.join(", ")}"
      end

      private

      def follow
        super
        patch.figures.follow_cover
      end
    end
  end
end
