# frozen_string_literal: true

module Thistle
  module Store
    # Whose request, or whose long work, this thread is doing, which the trail notes (migration 038), and for which
    # group (OfGroup).
    module Acting
      KEY, GROUP = :thistle_acting, :thistle_group
      HERE = 0 # this machine, while nobody has an account

      module_function

      # An account's id, HERE, or nil while nobody asks for anything.
      def account_id = Thread.current[KEY]

      # The group whose shelf, tools, seed and people are at hand; nil for those of all.
      def group_id = Thread.current[GROUP]

      def group_id=(id)
        Thread.current[GROUP] = id
      end

      # Runs the block as an account.
      def as(id)
        before, Thread.current[KEY] = Thread.current[KEY], id
        yield
      ensure
        Thread.current[KEY] = before
      end

      # Runs the block for a group.
      def for_group(id)
        before, self.group_id = group_id, id
        yield
      ensure
        self.group_id = before
      end
    end
  end
end
