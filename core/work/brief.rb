# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What a crew needs to hear and carry for one method at a patch on a day: steps, kit, roles, and what is safe.
      class Brief
        # situation: a Decide::Situation of the day.
        def initialize(situation, removal)
          @situation, @removal = situation, removal
        end

        # [sentence], in the order of the work.
        def steps = @removal.brief
        # [words], what is carried.
        def tools = @removal.tools
        # [words], who does what.
        def roles = @removal.roles
        # The fewest people.
        def crew = @removal.crew
        # The Decide::Safety of the day.
        def safety = @safety ||= Decide::Safety.new(@situation, @removal)
      end
    end
  end
end
