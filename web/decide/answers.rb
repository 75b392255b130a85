# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # What the decide room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        RANKED = 200 # patches, the first of them
        COURSE_STEP = %i[id kind due_on until_on text method_key done_on].freeze

        module_function

        def bench(desk)
          now = desk.bench.situation
          { date: now.date, plant: now.plant.key, stage: now.stage, soil: now.soil, errors: desk.errors,
            **asked(desk), verdicts: desk.bench.verdicts.map { |one| verdict_here(one, desk) },
            questions: desk.unknowns.map { |q| { fact: q.fact, question: q.text, decides: q.swayed } },
            contradictions: desk.contradictions.map { |clash| { fields: clash.fields, text: plain(clash.text) } },
            combination: desk.combination.mixed? ? combination(desk.combination) : nil,
            other_schools: desk.other_schools.map { |a| other_school(a) } }
        end

        def verdict_here(one, desk)
          verdict(one).merge(would_go: ways(one, desk), safety: safety(desk.safety(one.removal)),
                             actives: (actives(one, desk) if one.removal.herbicide?))
        end

        # {known, ask, weak, never} of actives, by key; never says why.
        def actives(one, desk)
          now, use = desk.bench.situation, one.removal.use
          found = Core::Mix::Choice.new(now.plant, use, wet: now.near_water?).by_verdict
          found.to_h { |verdict, some| [verdict, some.map { |each| [each.active.key, each.why].compact.join(": ") }] }
        end

        # To kill or to hold down, on ground for what, and whether hands alone finish it in a season.
        def asked(desk)
          { asked_to: desk.facts.holding? ? "hold" : "kill", aim: desk.facts.aim,
            beyond_hands: desk.bench.beyond_hands&.last&.round }
        end

        def verdict(verdict)
          { method: verdict.removal.key, name: verdict.removal.name, named_by_plant: verdict.named,
            verdict: verdict.kind, until: verdict.until,
            closes: verdict.closes, again: verdict.again, kill_percent: verdict.not_known? ? nil : verdict.kill,
            **effort(verdict.effort),
            reasons: verdict.reasons.map { |reason| reason.to_h.merge(text: reason.said) } }
        end

        def effort(effort)
          { crew_hours: effort.hours&.round(2),
            crew_hours_range: effort.hours_range&.transform_values { |hours| hours.round(2) },
            own_pace: effort.pace && { times: effort.pace.round(3), records: effort.pace_records },
            mix_l: effort.litres&.round(3), cost: effort.cost&.round(2), passes: effort.passes,
            years_to_quiet: effort.years_to_quiet,
            hours_to_quiet: effort.hours_to_quiet&.round(2), cost_to_quiet: effort.cost_to_quiet&.round(2) }
        end

        def ways(verdict, desk)
          return [] if verdict.go?

          desk.changes.of(verdict.removal)
              .map { |way| { changes: way.changed.except(:schools), words: way.words, from: way.date } }
        end

        def combination(combination)
          steps = combination.steps.map do |step|
            { size: step.size, stems: step.stems, method: step.verdict.removal.key, verdict: step.verdict.kind,
              until: step.verdict.until }
          end
          { steps:, crew_hours: combination.hours&.round(2), mix_l: combination.litres&.round(3),
            cost: combination.cost&.round(2),
            kill_percent: combination.kill&.round(1) }
        end

        def other_school(answer)
          { question: answer.school.key, answer: answer.option,
            best: answer.best && verdict(answer.best).except(:reasons) }
        end

        def safety(safety)
          %i[hazards who dress permits disposal never].to_h do |kind|
            [kind, [safety.public_send(kind)].flatten.compact.map do |line|
              plain(line.text)
            end]
          end
        end

        def removal(removal)
          { key: removal.key, name: removal.name, what: removal.text, tags: removal.tags, herbicide: removal.herbicide,
            suits: removal.suits,
            brief: removal.brief, kit: removal.kit, least_people: removal.crew, kill_percent: removal.kill,
            minutes_range: removal.task.range,
            follow_up: removal.follow_up, cautions: removal.cautions, source: removal.source }
        end

        def schools(property, patch)
          { property: property.schools_kept.merge(herbicide: property.stance), patch: patch&.own_schools }
        end

        def rule_book(board)
          rules = Core::Decide::Rule.all.map do |rule|
            { key: rule.key, says: rule.says, about: rule.about, looks_at: rule.looks, force: rule.force,
              source: rule.source,
              off: board.off.key?(rule.key), decides: board.decides(rule.key).map(&:code) }
          end
          { rules:, local: board.local.map { |rule| rule.to_core.to_h } }
        end

        def course(course)
          steps = course.steps.map { |step| step.values.slice(*COURSE_STEP) }
          { id: course.id, patch: course.patch.code, method: course.method_key, advised: course.advised_key,
            reason: course.reason,
            person: course.person, chosen_on: course.chosen_on, left: !course.left_at.nil?, steps: }
        end

        def course_plan(desk)
          steps = desk.course.steps.map { |step| step.to_h.merge(removal: step.removal&.key) }
          { patch: desk.patch.code, method: desk.removal.key, advised: desk.advised&.key, begins_on: desk.course.begins,
            years: desk.course.years,
            crew_hours: desk.course.hours&.round(2), steps: }
        end

        def ranking(desk)
          patches = desk.rows.first(RANKED).map do |row|
            parts = row.parts.to_h { |part| [part.key, { value: part.value.round(3), because: plain(part.text) }] }
            { patch: row.candidate.code, id: row.id, score: row.score.round(4), parts:,
              method: row.candidate.verdict.removal.key,
              verdict: row.candidate.verdict.kind }
          end
          { weights: desk.weights, goal: desk.goal, errors: { w: desk.error }.compact, total: desk.rows.size, patches: }
        end

        def season_plan(plan)
          if plan
            { status: plan.status, asked: plan.asked_for, answer: plan.answered, fault: plan.fault }
          else
            { status: "none" }
          end
        end

        def plain(text) = Core::Units.new.fill(text)
      end
    end
  end
end
