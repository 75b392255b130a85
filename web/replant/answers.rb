# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What the replant room answers as plain data for JSON. docs/api.md describes each.
      module Answers
        module_function

        def bench(desk)
          natives = desk.shortlist.matches.map { |match| native(match, desk.sowing) }
          { light: desk.light, moisture: desk.moisture, jobs: desk.jobs, natives:, errors: desk.errors }
        end

        def first(ground)
          answer = ground.cleared? ? ground.answer : nil
          { patch: ground.patch.code, cleared: ground.cleared?, kind: answer&.kind, odds: answer&.odds,
            natives_cover: answer&.closed, seedlings_m2: answer&.seedlings, natives: ground.look&.natives,
            bare: ground.bare, look_on: ground.look_on, reasons: answer ? answer.reasons.map(&:to_h) : [] }
        end

        def native(match, sowing)
          windows = sowing.windows(match.plant.replant["plant_in"]).first(2)
          { native: match.plant.key, name: match.plant.name, takes_over: match.taken_over,
            windows: windows.map { |window| window.to_h.except(:open) } }
        end
      end
    end
  end
end
