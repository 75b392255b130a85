# frozen_string_literal: true

module Thistle
  module Web
    # Who asks, and what they may do where: everything for whoever sits at a machine without accounts, else what the
    # account's roles allow (knowledge/roles.yml), by property.
    class Access
      attr_reader :account

      # account: a Store::Account; nil for this machine without accounts.
      def initialize(account, today)
        @account = account
        @roles = Hash.new([].freeze)
        return unless account

        account.roles(today).each { |id, roles| @roles[id] = roles.freeze }
      end

      def signed_in? = true
      def everyone? = account.nil?
      def keeper? = everyone? || account.keeper
      def account_id = account ? account.id : Store::Acting::HERE

      # Do they hold the same roles wherever they hold any?
      def alike? = @alike ||= @roles.values.map(&:sort).uniq.size < 2

      # Ids of the properties that they see; nil for all.
      def property_ids = everyone? ? nil : @roles.keys
      def sees?(property_id) = everyone? || @roles.key?(property_id)

      # Their roles on a property, the keeper's among them; property_id nil: what belongs to no property.
      def roles(property_id)
        held = property_id ? @roles[property_id] : @roles.values.flatten.uniq
        [*held, Core::Policy::SIGNED_IN, *(Core::Policy::KEEPER if account&.keeper)]
      end

      # May they do so to whatever of the kind is on this property?
      def may?(act, thing, property_id) = everyone? || policy.allows?(roles(property_id), act, thing)

      # How much of a kind they may do so to: :all, :some (what is their own) or :none.
      def reach(act, thing, property_id)
        return :all if may?(act, thing, property_id)

        policy.own?(roles(property_id), act, thing) ? :some : :none
      end

      # May they do so to this record, since it is their own? kind: of Store::Belongs.
      def own?(act, thing, property_id, kind, id)
        return false unless policy.own?(roles(property_id), act, thing)

        case kind
        when :day then on_day?(id)
        when :person then person_ids.include?(id)
        else Store::Trail.own?(Store::Belongs.table(kind), id, account.id, days: policy.own_days)
        end
      end

      # Who did not sign in: may nothing.
      class Nobody
        def account = nil
        def account_id = nil
        def signed_in? = false
        def everyone? = false
        def keeper? = false
        def alike? = true
        def property_ids = []
        def roles(_) = []
        def sees?(_) = false
        def may?(*) = false
        def own?(*) = false
      end

      private

      def person_ids = @person_ids ||= account.person_ids
      def policy = Core::Knowledge.shipped.policy

      def on_day?(id)
        @days ||= Hash.new do |known, day|
          listed = Store::WorkDay.where(id: day).get(:people_ids)
          known[day] = !listed.nil? && JSON.parse(listed).intersect?(person_ids)
        end
        @days[id]
      end
    end
  end
end
