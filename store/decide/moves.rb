# frozen_string_literal: true

module Thistle
  module Store
    # Reading: the best move of every patch that wants work, over some properties, most pressing first. Patches alike
    # are worked out once, and once a day.
    class Moves
      def initialize(properties, today)
        @properties, @today = properties.to_h { |one| [one.id, one] }, today
      end

      # [Core::Decide::Agenda::Item], one a group of patches alike.
      def items
        @items ||= begin
          weeds = alike.values.select { |group| weed?(group) }
          kept, fresh = weeds.partition { |group| !group.alone && Core::Kept::MOVES[content(group)] }
          found = kept.map { |group| Core::Kept::MOVES[content(group)].with(id: group.id) } + worked_out(fresh)
          Core::Decide::Agenda.in_order(found)
        end
      end

      # Ids of the patches that an item stands for, ascending.
      def ids(item) = alike.fetch(item.id).ids

      def none? = alike.empty?

      # {property id => {kind of work (Core::Season::Limits) => open patches that want it}}, from each one's best move.
      def wanted
        items.each_with_object({}) do |item, all|
          limits = Core::Season::Limits.of(item.verdict.removal) or next
          counts = all[alike.fetch(item.id).property_id] ||= Hash.new(0)
          counts[limits.key] += ids(item).size unless item.group == :stuck
        end.transform_values { |counts| counts.reject { |_, n| n.zero? } }.reject { |_, counts| counts.empty? }
      end

      # on: a day on which a method becomes right (opens) or stops being so, of how many patches, the first of them.
      Turn = Core::Value.define(:on, :opens, :removal, :ids)

      # What opens and what closes within so many days: [Turn], the soonest first.
      def turns(days)
        found = items.select { |item| TURNING.include?(item.group) && item.until&.between?(@today, @today + days) }
        alike = found.group_by { |item| [item.until, item.group == :waiting, item.verdict.removal] }
        found = alike.map do |(on, opens, removal), some|
          Turn.new(on:, opens:, removal:, ids: some.flat_map { |item| ids(item) })
        end
        found.sort_by { |turn| [turn.on, turn.opens ? 1 : 0, turn.removal.name] }
      end
      TURNING = %i[good waiting].freeze

      # Keys of plants that stand open on a property.
      def plants_on(property)
        @plants_on ||= alike.values.group_by(&:property_id).transform_values { |here| here.map(&:plant_key).uniq }
        @plants_on.fetch(property.id, [])
      end

      private

      # {id of the patch that stands for them => Alike::Group}
      def alike
        @alike ||= Alike.groups(property_ids: @properties.keys, young:).to_h { |group| [group.id, group] }
      end

      # Ids of patches on whose ground something young stands.
      def young = @properties.values.map { |one| one.together.planted_young(@today) }.reduce(Set.new, :|)

      def sites = @sites ||= Hash.new { |hash, id| hash[id] = property(id).site(@today) }
      def property(id) = @properties.fetch(id)

      def worked_out(groups)
        patches = Alike.patches(groups)
        entries = groups.map { |group| entry(patches.fetch(group.id)) }
        found = Core::Decide::Agenda.new(entries, kept: Core::Kept::MOVES).items.to_h { |item| [item.id, item] }
        groups.reject(&:alone).each { |group| Core::Kept::MOVES.fetch(content(group)) { found[group.id] } }
        found.values
      end

      # What the answer of a group rests on.
      def content(group)
        [:alike, sites[group.property_id], shared[[group.property_id, group.plant_key]], group.told]
      end

      # The same for all patches of a plant on a property.
      def shared
        @shared ||= Hash.new do |all, (id, key)|
          all[[id, key]] = property(id).facts_shared(Core::Knowledge.shipped.plant(key)).hash
        end
      end

      def weed?(group)
        @weeds ||= Hash.new do |all, (id, key)|
          all[[id, key]] = property(id).weed?(Core::Knowledge.shipped.plant(key))
        end
        @weeds[[group.property_id, group.plant_key]]
      end

      def entry(patch)
        patch.associations[:property] = property(patch.property_id)
        Core::Decide::Agenda::Entry.new(id: patch.id, facts: patch.facts(@today), site: sites[patch.property_id])
      end
    end
  end
end
