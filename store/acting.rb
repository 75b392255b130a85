# frozen_string_literal: true

module Thistle
  module Store
    # Whose request, or whose long work, this thread is doing: the trail notes it (migration 038).
    module Acting
      KEY = :thistle_acting
      HERE = 0 # this machine, while nobody has an account

      module_function

      # An account's id, HERE, or nil while nobody asks for anything.
      def account_id = Thread.current[KEY]

      # Runs the block as an account.
      def as(id)
        before, Thread.current[KEY] = Thread.current[KEY], id
        yield
      ensure
        Thread.current[KEY] = before
      end
    end
  end
end
