# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what the facts of several properties start from, read for all of them at once when it is first asked for.
    class Together
      # The same properties; each asks here from now on.
      def self.of(properties)
        all = new(properties.map(&:id))
        properties.each { |one| one.together = all }
      end

      def initialize(ids)
        @ids = ids
      end

      # {kind => Product} in use on a property.
      def products(id) = products_all.fetch(id, {})

      # The Core::Decide::RuleBook that counts on a property.
      def rule_book(id)
        off, local = off_all.fetch(id, []), local_all.fetch(id, [])
        off.empty? && local.empty? ? Core::Decide::RuleBook::SHIPPED : Core::Decide::RuleBook.new(off:, local:)
      end

      # Ids of patches on whose ground something young stands on a day.
      def planted_young(today) = (@planted_young ||= {})[today] ||= GroundHistory.planted_young(@ids, today)

      # What the group's own records say of what methods kill, and of how long work takes.
      def kills = @kills ||= Learned.kills
      def pace = @pace ||= OwnPace.factors

      private

      def products_all = @products_all ||= InUse.of_all(@ids)

      def off_all
        @off_all ||= RuleSetting.live.where(property_id: @ids).order(:rule_key).select_map(%i[property_id rule_key])
                                .group_by(&:first).transform_values { |rows| rows.map { |_, key| key.to_sym } }
      end

      def local_all
        @local_all ||= LocalRule.live.where(property_id: @ids).order(:id).eager(:zone).all.group_by(&:property_id)
                                .transform_values { |rules| rules.map(&:to_core) }
      end
    end
  end
end
