# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        AlreadyFreed = Rule.new(:already_freed, about: :freeing, source: "common_practice") do |now|
          freed = now.freed_on
          no "The trees here were freed on #{freed.strftime("%-d %B %Y")}. The low stumps are next." if freed && now.date - freed < 365
        end
      end
    end
  end
end
