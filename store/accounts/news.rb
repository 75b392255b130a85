# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what others did since somebody last said that they had seen it, on the properties that they see; where
    # they are named, and which visits are theirs.
    class News
      # name: who; property_id; act and kind of the trail; count: how many.
      Line = Core::Value.define(:name, :property_id, :act, :kind, :count)
      MOST = 8 # lines

      # since: a row of the trail, else what the account has seen.
      def initialize(account, places, staff:, since: account.seen_id)
        @account, @places, @staff, @since = account, places, staff, since
      end

      # The last row of the trail that there is.
      def last = @last ||= Trail.max(:id).to_i

      # [Line], the most first.
      def lines
        @lines ||= rows.order(Sequel.desc(:count), :kind).limit(MOST).all.map do |row|
          Line.new(name: names.fetch(row[:account_id], "Somebody"), count: row[:count],
                   **row.to_hash.slice(:property_id, :act, :kind))
        end
      end

      # [Comment] in which they are named, the newest first.
      def mentions
        said = Comment.live.where(property_id: @places).mentioning(@account).exclude(account_id: @account.id)
        said = said.open_to_all unless @staff
        @mentions ||= said.reverse(:id).limit(MOST).eager(:account, :patch).all
      end

      # [Task] that they take, the next first.
      def visits
        @visits ||= Task.undone.where(account_id: @account.id).order(:due_on, :id).limit(MOST).eager(:patch).all
                        .select { |task| @places.include?(task.patch.property_id) }
      end

      # [Patch] that they take and that want work.
      def patches
        @patches ||= Patch.wanting_work.where(taken_by: @account.id, property_id: @places).order(:code).limit(MOST)
                          .select(:id, :code, :plant_key, :state).all
      end

      def none? = [lines, mentions, visits, patches].all?(&:empty?)

      private

      def rows
        Trail.naked.where(property_id: @places).where(Sequel[:id] > @since).exclude(account_id: @account.id)
             .group(:account_id, :property_id, :act, :kind)
             .select(:account_id, :property_id, :act, :kind).select_append { count.function.*.as(:count) }
      end

      def names = @names ||= Account.select_hash(:id, :name)
    end
  end
end
