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

        def steps = @removal.brief
        def tools = @removal.tools
        def roles = @removal.roles
        def crew = @removal.crew
        def safety = @safety ||= Decide::Safety.new(@situation, @removal)
      end
    end
  end
end
