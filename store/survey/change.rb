# frozen_string_literal: true

module Thistle
  module Store
    # Model: a journal of changes to shapes that can be undone: what each patch said before, and what was made.
    class Change < Sequel::Model(:changes)
      many_to_one :property, class: "Thistle::Store::Property"

      MADE = { "patches" => :patches, "observations" => :observations, "patch_shapes" => :patch_shapes,
               "tasks" => :tasks }.freeze

      dataset_module do
        def undoable = where(undone_at: nil).reverse(:id)
      end

      # Runs the block in one transaction and remembers how to take it back. `patches` are those that it may change;
      # rows that it adds to MADE are found by their ids.
      def self.keep(patches, label)
        db.transaction do
          before = patches.to_h { |patch| [patch.id, plain(patch.refresh)] }
          visits = db[:tasks].where(patch_id: before.keys).select_hash(:id, :patch_id)
          last = MADE.values.to_h { |table| [table, db[table].max(:id) || 0] }
          answer = yield
          made = MADE.transform_values { |table| db[table].where { id > last[table] }.select_map(:id) }
          after = db[:patches].where(id: before.keys + made["patches"]).as_hash(:id, :lock_version)
          create(property_id: patches.first.property_id, patch_id: patches.first.id, label:,
                 undo: JSON.generate(before:, visits:, made:, after:))
          answer
        end
      end

      def self.plain(patch)
        patch.values.except(:id, :lock_version).transform_values { |v| v.is_a?(Time) ? v.utc.strftime("%F %T.%6N") : v }
      end

      private_class_method :plain

      # Takes it back. Raises BadInput when a patch has been changed since: undo that first.
      def take_back
        facts = JSON.parse(undo)
        ids = facts["before"].keys.map(&:to_i) + facts["made"]["patches"]
        refuse_if_changed(facts["after"])
        db.transaction do
          made, met = facts["made"], Overlaps.neighbours(ids)
          unmake(made)
          facts["before"].each { |id, row| put_back(id.to_i, row) }
          Wishes.put_back(facts.fetch("visits", {}), made["tasks"])
          update(undone_at: Time.now.utc)
          property.year_changed
          FollowUps.settle_each(ids)
          Surroundings.settle(property, ids)
          Overlaps.settle(property, ids + met)
        end
      end

      private

      def unmake(made)
        %w[observations patch_shapes].each { |table| db[table.to_sym].where(id: made[table]).delete }
        db[:patches].where(id: made["patches"]).update(deleted_at: Time.now.utc, parted_share: nil)
      end

      def put_back(id, row)
        Patch.where(id:).update(row.transform_keys(&:to_sym).merge(lock_version: Sequel[:lock_version] + 1))
      end

      def refuse_if_changed(after)
        now = db[:patches].where(id: after.keys.map(&:to_i)).as_hash(:id, :lock_version)
        changed = after.reject { |id, version| now[id.to_i] == version }.keys
        return if changed.empty?

        codes = Patch.where(id: changed.map(&:to_i)).select_map(:code)
        raise Core::BadInput.new("#{codes.join(", ")} has been changed since. Undo that first.", field: :undo)
      end
    end
  end
end
