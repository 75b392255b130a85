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

        # The lot of seed that the address names.
        def lot_in_path = Store::SeedOnHand.here.first(id: Whole.read(params["id"])) || halt(404)

        # The board of a plan that is drawn; 404 where there is nothing to see.
        def drawn_board
          board = PlanBoard.new(plan_in_path, units, today)
          board.drawn? ? board : halt(404)
        end

        # The planting that a count is of: the one named, or for cover the first in the ground.
        def counted_planting(plan, form)
          done = plan.plantings.select(&:done_on)
          found = plan.seed? ? done.first : done.find { |one| one.id == form.values[:planting] }
          form.failed(:planting, "is not in the ground yet") unless found
          form.failed(:counted_on, "is before it was planted") if found && counted_before?(form, found)
          found
        end

        def counted_before?(form, planting)
          form.values[:counted_on].is_a?(Date) && form.values[:counted_on] < planting.done_on
        end

        # The page of what took.
        def establishment_page(plan, form: nil, errors: {}, status: 200)
          board = EstablishmentBoard.new(plan, today)
          form ||= Forms::Took.untouched({ "counted_on" => today.to_s }, units:, today:)
          show("replant/take", status:, board:, form:, errors:, planted_typed: params["on"]) do
            Answers.establishment(board, form)
          end
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
