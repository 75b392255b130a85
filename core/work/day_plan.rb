# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Who works where in which part of a day, so that what is finished is worth most (DayProgramme, solved by HiGHS).
      # A quick plan, most for an hour first, stands beside it and serves where the solver finds nothing better in time.
      #
      #   DayPlan.new(day, jobs).solve  # => Answer
      class DayPlan
        # People at a job in a block.
        Turn = Value.define(:job, :block, :people)
        # turns: [Turn]; done: {Job => share of it}; by: :solver or :quick; quick: what the quick plan is worth; late:
        # did the solver stop before it was sure?
        Answer = Value.define(:turns, :done, :worth, :quick, :by, :sure)
        PART, WHOLE = 0.6, 0.4 # of what a job is worth, for a share of it and for finishing it
        MOVE, EARLY = 0.002, 0.001 # what each job in a block costs; and one in seed, for each block that follows
        DONE = 1 - 1e-6
        SECONDS = 1.5

        attr_reader :day, :jobs

        # pins: {job id => block or nil for any} that must be worked on; bans: ids that must not.
        def initialize(day, jobs, pins: {}, bans: [])
          @day, @pins = day, pins
          @jobs = jobs.reject { |job| bans.include?(job.id) }
        end

        def solve(seconds: SECONDS)
          quick = self.quick
          turns, sure = @jobs.empty? || @day.people.empty? ? [[], true] : DayProgramme.new(self, @pins).solve(seconds)
          found = [turns, quick].compact.select { |some| pinned?(some) }.max_by { |some| worth(some) } || quick
          Answer.new(turns: found, done: done(found), worth: worth(found), quick: worth(quick),
                     sure: sure && !turns.nil?, by: found.equal?(quick) ? :quick : :solver)
        end

        # {Job => share of it that is done}
        def done(turns)
          turns.group_by(&:job).to_h do |job, some|
            hours = some.sum { |turn| turn.people.size * worked(turn.job, turn.block) }
            [job, job.hours.positive? ? [hours / job.hours, 1.0].min : 1.0]
          end
        end

        # What a plan is worth: what both plans, and a test that tries them all, are compared by.
        def worth(turns)
          gained = done(turns).sum { |job, share| job.score * ((PART * share) + (share >= DONE ? WHOLE : 0)) }
          gained - turns.sum { |turn| MOVE + (turn.job.late ? EARLY * (last - turn.block) : 0) }
        end

        def worked(job, block) = job.worked(*@day.blocks[block])
        def last = @day.blocks.size - 1

        # What keeps a job out altogether, in words; nil where nothing does.
        def against(job)
          able = @day.people.select { |person| job.takes?(person) }
          lacking = job.needs.find { |need| able.none? { |person| need.met?(person, @day.date) } }
          return "it needs #{lacking.text}, and nobody who comes is" if lacking
          return "it takes #{job.least} people at once" if able.size < job.least
          return "its hours are not fit that day" unless @day.blocks.each_index.any? { |b| worked(job, b).positive? }

          tool = job.tools.keys.find { |key| @day.tools.fetch(key, 1).zero? }
          tool && "there is no #{Knowledge.shipped.kit.fetch(tool)["text"]}"
        end

        # One more pair of volunteers: jobs that would then be finished and are not now (by the quick plan).
        def one_more_pair
          pair = Array.new(2) { |n| Person.new(id: "more#{n}", name: "one more", roles: ["volunteer"]) }
          more = DayPlan.new(@day.with(people: @day.people + pair), @jobs)
          finished = ->(plan) { plan.done(plan.quick).select { |_, share| share >= DONE }.keys }
          finished.call(more) - finished.call(self)
        end

        # Most worth for an hour first, in each block those whom it needs, then hands as far as they are of use.
        def quick = @quick ||= Quick.new(self, @pins).turns

        private

        def pinned?(turns)
          @pins.all? { |id, block| turns.any? { |turn| turn.job.id == id && [nil, turn.block].include?(block) } }
        end

        # A plan made by hand.
        class Quick
          def initialize(plan, pins)
            @plan, @day, @pins = plan, plan.day, pins
            @left = plan.jobs.to_h { |job| [job, job.hours] }
          end

          def turns
            jobs = @plan.jobs.reject { |job| @plan.against(job) }
                        .sort_by { |job| [@pins.key?(job.id) ? 0 : 1, -job.score / [job.hours, 0.25].max, job.id.to_s] }
            @day.blocks.each_index.flat_map { |block| filled(block, jobs) }
          end

          private

          def filled(block, jobs)
            free, tools = @day.people.dup, @day.tools.dup
            jobs.filter_map do |job|
              next if @left[job] <= 1e-9 || @pins[job.id].to_i > block

              people = crew(job, block, free, tools) or next
              take(job, block, people, free, tools)
            end
          end

          def take(job, block, people, free, tools)
            people.each { |person| free.delete(person) }
            job.tools.each { |key, per| tools[key] -= (people.size / per.to_f).ceil if tools.key?(key) }
            @left[job] -= people.size * @plan.worked(job, block)
            Turn.new(job:, block:, people:)
          end

          # Those who meet its needs, then others; nil where there are too few.
          def crew(job, block, free, tools)
            hours = @plan.worked(job, block)
            return unless hours.positive?

            able = free.select { |person| job.takes?(person) }
            chosen = job.needs.map { |need| able.find { |person| need.met?(person, @day.date) } }
            return if chosen.any?(&:nil?)

            wanted = [(@left[job] / hours).ceil.clamp(job.least, job.most), reach(job, tools)].min
            spare = (able - chosen).sort_by { |person| dear(person) }
            people = (chosen.uniq + spare).first([wanted, chosen.uniq.size].max)
            people if people.size.between?(job.least, [job.most, reach(job, tools)].min)
          end

          # How many the tools that are left will do for.
          def reach(job, tools)
            job.tools.map { |key, per| tools.key?(key) ? tools[key] * per : job.most }.min || job.most
          end

          # Whoever can do what few can is kept for it.
          def dear(person)
            able = (person.roles.to_a - %w[volunteer trainee]).size + person.training.to_a.size
            [person.licensed?(@day.date) ? 1 : 0, able]
          end
        end
        private_constant :Quick
      end
    end
  end
end
