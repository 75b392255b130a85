# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What the routes of this room share.
      module Helpers
        # The plan that the address names, with its patch's property as the one at hand.
        def plan_in_path
          plan = Store::PlantingPlan[Whole.read(params["id"])] || halt(404)
          patch_at(plan.patch_id)
          plan
        end

        # The board of a plan that is drawn; 404 where there is nothing to see.
        def drawn_board
          board = PlanBoard.new(plan_in_path, units, today)
          board.drawn? ? board : halt(404)
        end

        # The page of a plan.
        def planting_plan(plan, errors: {}, status: 200)
          people = params.fetch("people", "4").to_s
          number = people.match?(/\A\d{1,3}\z/) ? people.to_i : 0
          board = PlanBoard.new(plan, units, today, people: number)
          errors = { people: "People are 1 to #{Core::Replant::Carry::MOST}.", **errors } unless number.between?(1, 60)
          show("replant/plan", status:, board:, people:, errors:, standing_typed: params["standing"]) do
            Answers.plan(board, errors)
          end
        end
      end
    end
  end
end
