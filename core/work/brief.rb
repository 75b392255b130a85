# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What a crew needs to hear and carry for one method on one plant at one stage: kit, roles, cautions,
      # and where the material goes.
      class Brief
        Line = Value.define(:text, :source)

        def initialize(plant:, removal:, stage:, knowledge: Knowledge.shipped)
          @plant, @removal, @stage, @knowledge = plant, removal, stage, knowledge
        end

        def tools = @removal.tools
        def roles = @removal.roles

        # Cautions of the method, then of the plant.
        def cautions
          (@removal.cautions | @plant.hazards).map { |key| line(@knowledge.cautions.fetch(key)) }
        end

        # Where what is removed goes at this stage.
        def disposal
          return line(@knowledge.disposal.fetch("leave_standing")) unless @removal.removes? || @removal.is?(:seed_stop)

          key = carries_seed? ? "seeding" : "clean"
          line(@knowledge.disposal.fetch(@plant.disposal.fetch(key, "dry_off_ground")))
        end

        private

        def carries_seed?
          %i[green_seed ripe_seed].include?(@stage) || (@stage == :flower && @plant.disposal["bag_in_flower"])
        end

        def line(row) = Line.new(text: row["text"], source: row["source"])
      end
    end
  end
end
