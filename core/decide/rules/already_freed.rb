# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        AlreadyFreed = Rule.new(
          :already_freed,
          about: :freeing, looks: %i[freed_on date],
          source: "common_practice",
          says: "Trees that were freed within a year are not freed again."
        ) do |now|
          freed = now.freed_on
          if freed && now.date - freed < Facts::FREED_DAYS
            no "The trees here were freed on {day:#{freed}}. The low stumps are next."
          end
        end
      end
    end
  end
end
