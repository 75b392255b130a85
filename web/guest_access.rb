# frozen_string_literal: true

module Thistle
  module Web
    # A guest by a link: sees the one thing that the link is for, and answers where it is a specialist's sheet.
    class GuestAccess
      attr_reader :link

      def initialize(link)
        @link = link
      end

      def account = nil
      def signed_in? = true
      def everyone? = false
      def keeper? = false
      def alike? = true
      # in the trail
      def account_id = -link.id
      def name = link.for_whom
      def property_ids = [link.property_id]
      def sees?(property_id) = property_id == link.property_id
      def roles(_) = []
      def may?(act, thing, _) = act == "read" && thing == "library"

      def reach(act, thing, property_id) = may?(act, thing, property_id) ? :all : :some

      # kind => [[act, thing], ...] of the link's own record.
      OPENS = { "sheet" => { sheet: [%w[read sheet], %w[add answer]] },
                "plan" => { land_plan: [%w[read report]] } }.freeze

      def own?(act, thing, property_id, kind, id)
        return false unless sees?(property_id)
        return act == "read" && photo?(id) if kind == :photo

        id == link.record_id && OPENS.fetch(link.kind, {}).fetch(kind, []).include?([act, thing])
      end

      private

      def photo?(id) = link.kind == "sheet" && Store::Photo.where(id:).get(:report_id) == link.record_id
    end
  end
end
