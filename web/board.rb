# frozen_string_literal: true

module Thistle
  module Web
    # Today over all properties: open tasks that are due, and the agenda of every open patch.
    class Board
      SOON = 7   # days ahead that count as due
      SHOWN = 8  # rows under one heading; the rest are counted

      attr_reader :today

      def initialize(properties, today)
        @properties, @today = properties, today
        Store::Task.follow_rain(properties, today)
      end

      # [Task] due within a week, oldest first; the first of them only.
      def due = @due ||= Store::Task.due(through: today + SOON, limit: SHOWN).all
      def due_count = @due_count ||= Store::Task.due(through: today + SOON).count

      # {group => [Agenda::Item]}
      def groups = @groups ||= agenda.items.group_by(&:group)
      def patch(id) = patches.fetch(id)
      def patches = @patches ||= Store::Patch.wanting_work.all.to_h { |patch| [patch.id, patch] }
      def property(id) = by_id.fetch(id)

      def to_h
        { today:, due_count:,
          due: due.map { |t| { patch: t[:code], kind: t.kind, due_on: t.due_on, reason: t.reason, source: t.source } },
          agenda: agenda.items.map { |item| row(item) } }
      end

      private

      def by_id = @by_id ||= @properties.to_h { |property| [property.id, property] }

      def agenda
        @agenda ||= Core::Decide::Agenda.new(patches.values.filter_map { |patch| entry(patch) || nil })
      end

      def entry(patch)
        patch.associations[:property] = property(patch.property_id)
        choices = patch.choices(today)
        choices && patch.plant.invasive? && Core::Decide::Agenda::Entry.new(id: patch.id, choices:, site: patch.property.site(today))
      end

      def row(item)
        { patch: patch(item.id).code, group: item.group, method: item.verdict.removal.key, verdict: item.verdict.kind,
          until: item.until, reason: item.reason&.text }
      end
    end
  end
end
