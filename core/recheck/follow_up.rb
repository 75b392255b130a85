# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What follows from the records of a patch: which visits there are, which are still open, and which record made
      # the others. The order in which records were entered says nothing; the days on them do.
      #
      #   FollowUp.new(records, returns:, asked:, courses:).visits  # => [Visit]
      #
      # - Work asks for its return visits. Later work that takes plants out books its own in their place; so does the
      # same
      #   method done again (tape tied anew). A mark, a stub, a flag or bagged seed ends nothing that was asked before.
      # - A look answers what is due by then, or nearly; never what waits for weather that had not come.
      # - A look that finds something alive asks for treatment, until the next look or work that takes plants out.
      # - What a person asked for stays until it is made on its day or taken back.
      # - A planting asks for what its first years want; that is made by planting or by a count, as it says, or by a
      #   person's word, and never by a look at the invader.
      # - A course asks for its next step, whatever else is done, until that step is done or the course is left.
      # - Where no visit is open and something may still live, the plant's next yearly look is.
      class FollowUp
        # A visit: key (nil where a person asked: then id), done_on and done_by ("treatment:3", "check:4",
        # "observation:5", "hand") where it was made. from: [kind, id] of the record that asks.
        Visit = Value.define(:key, :id, :kind, :due_on, :text, :source, :event, :since, :happened_on, :from, :done_on,
                             :done_by)
        # A person's own: made_on where they said that it was made.
        Asked = Value.define(:id, :kind, :due_on, :since, :event, :happened_on, :made_on)
        Course = Value.define(:id, :chosen_on, :left_on, :steps)
        # said: "done" (on said_on) or "open", as a person says; nil where the records decide.
        Step = Value.define(:id, :kind, :method, :due_on, :said, :said_on, :text, :source)
        # cares: rows of key, due_on, text, since and closes (:planted, :counted, or nil for a person's word alone);
        # planted, counted: [[day, id of the record]]; made: {key => day} as a person says.
        Planting = Value.define(:id, :cares, :planted, :counted, :made)
        Done = Value.define(:on, :by)

        # days before its day that a look still answers a visit, and never before half of the wait is over (memory)
        EARLY = 14
        STEP_EARLY = 60 # days before a step's day that work or a look still answers it (memory)
        CARE_EARLY = 60 # days before its day that a count still answers it (memory)
        WORK = %w[seed mark treat].freeze # kinds of steps that ask for work
        WEATHER = %i[rain frosts browned].freeze

        # records: [Story::Record] in any order; returns: {treatment id => [Returns::Visit]}; rest: asked with the day
        # of the last record for the Returns::Visit of a patch that no other visit is open for, nil where nothing may
        # live.
        def initialize(records, returns: {}, asked: [], courses: [], plantings: [], rest: ->(_) {})
          @records, @returns, @asked, @courses = Story.in_order(records), returns, asked, courses
          @plantings, @rest = plantings, rest
        end

        # [Visit], the soonest first.
        def visits
          visits = [*returning, *again, *wished, *cared, *next_steps]
          visits << remaining if visits.all? { |one| one.done_on || one.kind == "planting" } && remaining
          @visits ||= visits.sort_by { |visit| [visit.due_on, visit.key.to_s, visit.id.to_i] }.freeze
        end

        # {step id => Done or nil} of every course.
        def steps = @steps ||= @courses.map { |course| done_of(course) }.reduce({}, :merge).freeze

        # {check id => id of the work that it looked at, the last before it that takes plants out; nil for none}
        def judged
          work = nil
          @records.each_with_object({}) do |record, all|
            work = record.id if record.removes
            all[record.id] = work if record.kind == :check
          end
        end

        private

        def treatments = @treatments ||= of(:treatment)
        def checks = @checks ||= of(:check)
        def of(kind) = @records.select { |record| record.kind == kind }
        def place(record) = (@places ||= @records.each_with_index.to_h)[record]

        # Visits that work asks for. Two works of one day that ask the same ask once.
        def returning
          found = treatments.flat_map { |work| @returns.fetch(work.id, []).map { |row| [work, row] } }
          found.uniq { |work, row| [work.on, row.key, row.due_on] }.map do |work, row|
            visit = Visit.new(key: "t#{work.id}:#{row.key}:#{row.due_on.year}", kind: row.kind, due_on: row.due_on,
                              text: row.text,
                              source: row.source, event: row.event, since: work.on, happened_on: row.happened_on,
                              from: [:treatment, work.id])
            done(visit, @records.find { |record| answers_return?(record, visit, work) })
          end
        end

        def answers_return?(record, visit, work)
          return false if record.on < work.on || record == work

          case record.kind
          when :observation then visit.kind == "report" && record.settled
          when :check then visit.kind == "check" && place(record) > place(work) && due?(record.on, visit)
          when :treatment then record.on > work.on && takes_over?(record, work, visit)
          end
        end

        # Its own visits take the place of those of earlier work, where it has any.
        def takes_over?(later, work, visit)
          return true if later.method == work.method
          return false unless later.removes && visit.kind != "report"

          visit.kind == "treat" || @returns.fetch(later.id, []).any?
        end

        # Was it made on its day, or near enough? What waits for weather only once that has come.
        def due?(on, visit)
          if visit.event && WEATHER.include?(visit.event.kind)
            return !visit.happened_on.nil? && on >= [visit.happened_on, visit.due_on - 1].max
          end

          on >= visit.due_on - [EARLY, (visit.due_on - visit.since).to_i / 2].min
        end

        # What looks found alive.
        def again
          checks.select(&:live).map do |check|
            visit = Visit.new(key: "k#{check.id}:again", kind: "treat", due_on: check.on, text: check.note,
                              source: "common_practice",
                              since: check.on, from: [:check, check.id])
            later = @records.drop(place(check) + 1)
            done(visit, later.find { |record| record.kind == :check ? record.on > check.on : record.removes })
          end
        end

        def wished
          @asked.map do |wish|
            visit = Visit.new(id: wish.id, kind: wish.kind, due_on: wish.due_on, event: wish.event, since: wish.since,
                              happened_on: wish.happened_on)
            next visit.with(done_on: wish.made_on, done_by: "hand") if wish.made_on

            since = @records.select { |record| record.on >= wish.since }
            done(visit, since.find { |record| fits?(record, wish.kind) && due?(record.on, visit) })
          end
        end

        def fits?(record, kind)
          { "check" => record.kind == :check, "treat" => record.kind == :treatment && record.removes,
            "report" => record.kind == :observation && record.settled,
            "planting" => false }.fetch(kind) # no look at an invader counts what was planted
        end

        # What plantings ask for; what several of them ask for on one day is one visit, open until all of them have it.
        def cared
          all = @plantings.flat_map { |planting| planting.cares.map { |care| care_of(planting, care) } }
          all.group_by { |visit| [visit.due_on, visit.text] }.map do |_, same|
            word = same.find { |visit| visit.done_by == "hand" }
            word || same.find { |visit| visit.done_on.nil? } || same.max_by(&:done_on)
          end
        end

        def care_of(planting, care)
          visit = Visit.new(key: "g#{planting.id}:#{care.key}", kind: "planting", due_on: care.due_on, text: care.text,
                            source: "common_practice", since: care.since, from: [:planting, planting.id])
          on, by = made(planting, care, visit.key)
          on ? visit.with(done_on: on, done_by: by) : visit
        end

        # [day, by whom] of what a planting asked for; nil where it is still to do. What is in the ground was looked
        # over before, whenever it was expected.
        def made(planting, care, key)
          return [planting.made[key], "hand"] if planting.made[key]

          on, id = case care.closes
                   when :planted then planting.planted.min
                   when :counted then planting.counted.sort.find { |day, _| day >= care.due_on - CARE_EARLY }
                   end
          on && [on, "#{care.closes}:#{id}"]
        end

        # The look that is left where nothing else is asked.
        def remaining
          return unless @records.any?

          @remaining ||= @rest[@records.last.on]&.then do |look|
            Visit.new(key: "p:#{look.key}:#{look.due_on.year}", kind: look.kind, due_on: look.due_on, text: look.text,
                      source: look.source, since: @records.last.on)
          end
        end

        # The next work of each course that is kept.
        def next_steps
          @courses.reject(&:left_on).filter_map do |course|
            step = course.steps.find { |one| WORK.include?(one.kind) && steps[one.id].nil? } or next
            Visit.new(key: "c#{course.id}:s#{step.id}", kind: "treat", due_on: step.due_on, text: step.text,
                      source: step.source,
                      since: course.chosen_on, from: [:course, course.id])
          end
        end

        # Work ticks its step, with what lies on the same day; a look ticks the look nearest to it.
        def done_of(course)
          said = course.steps.to_h do |step|
            [step.id, step.said == "done" ? Done.new(on: step.said_on, by: "hand") : nil]
          end
          free = course.steps.select { |step| step.said.nil? }
          @records.select { |record| during?(course, record) }
                  .each { |record| tick(record, free.reject { |step| said[step.id] }, said) }
          said
        end

        def during?(course, record)
          record.on >= course.chosen_on && (course.left_on.nil? || record.on <= course.left_on)
        end

        def tick(record, open, said)
          near = open.select { |step| step.due_on <= record.on + STEP_EARLY }
          steps = case record.kind
                  when :treatment then worked(record, near, open)
                  when :check then [nearest(near.select { |step| step.kind == "check" }, record)]
                  else []
                  end
          steps.compact.each { |step| said[step.id] = Done.new(on: record.on, by: "#{record.kind}:#{record.id}") }
        end

        def nearest(steps, record) = steps.min_by { |step| [(step.due_on - record.on).to_i.abs, step.id] }

        # A step without a method of its own is done by any work that takes plants out, near its day.
        def worked(record, near, open)
          step = near.find { |one| one.method == record.method } ||
                 (record.removes &&
                  near.find { |one| one.kind == "treat" && one.method.nil? && one.due_on <= record.on + EARLY })
          step ? [step, *open.select { |one| one.kind == "disposal" && one.due_on == step.due_on }] : []
        end

        def done(visit, record)
          record ? visit.with(done_on: record.on, done_by: "#{record.kind}:#{record.id}") : visit
        end
      end
    end
  end
end
