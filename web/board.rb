# frozen_string_literal: true

module Thistle
  module Web
    # Today over all properties: open tasks that are due, and the agenda of every open patch.
    class Board
      SOON = 7   # days ahead that count as due
      DRAWN = 120
      SHOWN = 10 # rows under one heading; the rest are counted

      attr_reader :today

      def initialize(properties, today)
        @properties, @today = properties, today
        Store::Task.follow_events(properties, today)
      end

      # [Task] visits due within a week, oldest first; the first of them only. What wants treating again
      # is in the agenda, with the reason beside it.
      def due = @due ||= visits.limit(SHOWN).all
      def due_count = @due_count ||= visits.count

      # Why a patch wants treating again, in the words of its last check; nil when it does not.
      def again(patch_id)
        @again ||= Store::Task.where(kind: "treat", done_on: nil).as_hash(:patch_id, :reason)
        @again[patch_id]
      end

      # Patches for the drawn map, those that want work first; a crowd is cut off at what a small map can show.
      def drawn(property)
        patches = property.patches_dataset.live
        wanting = patches.wanting_work.order(:id).limit(DRAWN).all
        room = DRAWN - wanting.size
        room.positive? ? wanting + patches.exclude(state: Store::Patch::WANTING).order(:id).limit(room).all : wanting
      end

      # {group => [Agenda::Item]}
      def groups
        @groups ||= agenda.items.group_by(&:group).transform_values do |items|
          items.sort_by.with_index { |item, n| [again(item.id) ? 0 : 1, n] }
        end
      end

      # How much there is to do, [number, unit] in the units of the patch's own property.
      def amount(patch)
        return [patch.stems, "stems"] if patch.stems

        property(patch.property_id).measures.area(patch.infested&.first || patch.gross_m2).split(" ", 2)
      end

      def patch(id) = patches.fetch(id)
      def patches = @patches ||= Store::Patch.wanting_work.for_agenda.eager(:treatments).all.to_h { |patch| [patch.id, patch] }
      def property(id) = by_id.fetch(id)

      def to_h
        { today:, due_count:,
          due: due.map { |t| { patch: t[:code], kind: t.kind, due_on: t.due_on, reason: t.reason, source: t.source } },
          agenda: agenda.items.map { |item| row(item) } }
      end

      private

      def visits = Store::Task.due(through: today + SOON).exclude(Sequel[:tasks][:kind] => "treat")

      def sites = @sites ||= Hash.new { |hash, id| hash[id] = property(id).site(today) }
      def by_id = @by_id ||= @properties.to_h { |property| [property.id, property] }

      def agenda
        @agenda ||= Core::Decide::Agenda.new(patches.values.filter_map { |patch| entry(patch) }, kept: Page::KEPT)
      end

      def entry(patch)
        patch.associations[:property] = property(patch.property_id)
        choices = patch.choices(today)
        choices && patch.plant.invasive? && Core::Decide::Agenda::Entry.new(id: patch.id, choices:, site: sites[patch.property_id])
      end

      def row(item)
        { patch: patch(item.id).code, group: item.group, method: item.verdict.removal.key, verdict: item.verdict.kind,
          until: item.until, reason: item.reason&.text, again: again(item.id) }
      end
    end
  end
end
