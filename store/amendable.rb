# frozen_string_literal: true

module Thistle
  module Store
    # What a record needs so that it can be corrected, taken back and brought back. A model that includes it has a
    # column deleted_at; what follows from the record is settled in #follow.
    module Amendable
      # Someone else was first.
      class Outdated < StandardError; end

      def amend_address = "/records/#{kind}/#{id}"
      def kind = Amendment.models.key(self.class)
      def amendments = Amendment.where(kind:, record_id: id).order(:id).all
      def amended = Amendment.where(kind:, record_id: id).count
      def property = patch.property
      def taken_back? = !deleted_at.nil?

      # version: the number of amendments that the person saw. Raises Outdated when there are more by now.
      def correct(version:, person:, reason:, **columns) = amend("corrected", version, person, reason, columns)

      def take_back(version:, person:, reason:)
        amend("taken_back", version, person, reason, { deleted_at: Time.now.utc })
      end

      def bring_back(version:, person:, reason: nil)
        amend("brought_back", version, person, reason, { deleted_at: nil })
      end

      private

      def amend(act, version, person, reason, columns)
        db.transaction do
          raise Outdated unless amended == version && taken_back? == (act == "brought_back")

          refresh
          Amendment.create(kind:, record_id: id, act:, person:, reason:, was: JSON.generate(values.except(:bytes)))
          update(**columns)
          follow
        end
        self
      end

      # State, visits, courses of its ground, of what was parted from it and of what took it in.
      def follow = FollowUps.settle_kin(patch)
    end
  end
end
