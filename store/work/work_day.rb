# frozen_string_literal: true

module Thistle
  module Store
    # Model: a day on which a group works on a property: who comes, what is at hand, what was proposed.
    class WorkDay < Sequel::Model(:work_days)
      plugin :optimistic_locking
      many_to_one :property, class: "Thistle::Store::Property"
      one_to_many :taps, class: "Thistle::Store::Tap", order: %i[at id]

      include Live

      def people = @people ||= Person.where(id: JSON.parse(people_ids)).named.all
      def heads = people.size + hands
      def tools_kept = JSON.parse(tools)
      def pins_kept = JSON.parse(pins).transform_keys(&:to_i)
      def bans_kept = JSON.parse(bans)
      # Why patches are held against the hours of the day: {patch id => words}.
      def despite_kept = JSON.parse(despite).transform_keys(&:to_i)
      # What somebody who stands there typed: {felt:, wbgt: (°C), drink: (L an hour)}.
      def felt_kept = { felt: felt_c, wbgt: wbgt_c, drink: drink_l_h }.compact
      # Own minutes of a stem by station: {patch id => {station => minutes}}.
      def minutes_kept = JSON.parse(minutes).transform_keys(&:to_i)
      def answered = answer && JSON.parse(answer, symbolize_names: true)
      def closed? = !closed_at.nil?
      def from_h = hours_of(starts_at)
      def to_h_of_day = hours_of(ends_at)

      # Is a patch on the property of the day?
      def on?(patch) = patch.property_id == property_id

      # Others on the same property that day, not taken back.
      def same_day = WorkDay.live.where(property_id:, held_on:).exclude(id: id || 0)

      # Everybody who comes, as core plans with them: people of the list, then hands without a name.
      def crew
        named = people.map(&:to_core)
        named + Array.new(hands) do |n|
          Core::Work::Person.new(id: "hand-#{n + 1}", name: "volunteer #{n + 1}", roles: %w[volunteer])
        end
      end

      # Blocks between breaks, while there is light.
      def blocks(site) = Core::Work::Day.blocks(from_h, to_h_of_day, *site.sun(held_on))

      # What was asked is another: what was proposed no longer answers it.
      def ask_anew(**columns) = update(answer: nil, **columns)

      # Holds a patch (in a block, or any), keeps it out, or lets it go. why: where it is held against the hours.
      def wish(patch_id, act, block: nil, why: nil)
        pins, bans, despite = pins_kept.except(patch_id), bans_kept - [patch_id], despite_kept
        pins[patch_id] = block if act == "pin"
        bans << patch_id if act == "ban"
        act == "pin" ? (despite[patch_id] = why if why) : despite.delete(patch_id)
        ask_anew(pins: JSON.generate(pins), bans: JSON.generate(bans), despite: JSON.generate(despite))
      end

      # Own minutes of a stem at each station of a patch; none takes them away.
      def time(patch_id, by_station)
        kept = minutes_kept.except(patch_id)
        kept[patch_id] = by_station if by_station.any?
        update(minutes: JSON.generate(kept))
      end

      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)

      private

      def hours_of(clock) = clock[0, 2].to_i + (clock[3, 2].to_i / 60.0)
    end
  end
end
