# frozen_string_literal: true

module Thistle
  module Store
    # Process: visits that people ask for, and what they say of a visit; what follows is settled by FollowUps.
    module Wishes
      module_function

      # A visit that a person asks for (columns of a Task).
      def ask(patch, **wish)
        Patch.db.transaction do
          Task.create(patch_id: patch.id, source: "own_records", **wish)
          FollowUps.settle(patch)
        end
      end

      # A person says of a visit that it was made on a day, that it was not (nil), or that nobody need come; and once
      # more for the other way.
      def say(task, **word)
        Patch.db.transaction do
          task.this.update(**word)
          FollowUps.settle(task.patch)
        end
      end

      # What a person wanted to come back for on the whole, they want on a part as well; the rest follows from records.
      def hand_on(whole, part)
        whole.tasks_dataset.by_hand.undone.each { |task| Task.create(**task.values.except(:id), patch_id: part.id) }
      end

      # The same of a patch that is merged into another.
      def hand_over(merged, into) = merged.tasks_dataset.by_hand.undone.update(patch_id: into.id)

      # Visits as they were before a change of ground: whose each was ({id => patch id}), and which came with it.
      def put_back(owners, made)
        Task.where(id: made).delete
        owners.each { |id, patch_id| Task.where(id: id.to_i).update(patch_id:) }
      end
    end
  end
end
