# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # What the work room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        module_function

        def brief(desk)
          brief = desk.brief
          { patch: desk.patch.code, method: desk.removal.key, verdict: Decide::Answers.verdict(desk.verdict),
            steps: brief.steps, tools: brief.tools, roles: brief.roles, safety: Decide::Answers.safety(brief.safety),
            returns: desk.visits.map { |visit| visit(visit) } }
        end

        def visit(visit) = { due_on: visit.due_on, kind: visit.kind, reason: visit.text, source: visit.source }

        def treatment(work)
          { done_on: work.done_on, method: work.method_key, plants: work.plants_done, stems: work.stems_done,
            area_m2: work.area_m2, product_ml: work.product_ml, seed_fall: work.seed_fall }
        end
      end
    end
  end
end
