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
        NOT_THEN = "the weather is not right at that time"
        NOT_THAT_DAY = "its hours are not fit that day"
        WHOLE_DAY = 0.5 # of the time goes to the day as a whole, the rest to two blocks at a time
        MOVE_H = 0.05 # from one patch to the next, and putting down tools (memory)
        DONE = 1 - 1e-6
        SECONDS = 1.5

        attr_reader :day, :jobs

        # pins: {job id => block or nil for any} that must be worked on; bans: ids that must not.
        def initialize(day, jobs, pins: {}, bans: [])
          @day, @wanted = day, pins
          @jobs = jobs.reject { |job| bans.include?(job.id) }
          @pins = pins.reject { |id, block| alone_against(id, block) }
        end

        # Pins that a plan does not keep, and why: {job id => words}.
        def unmet(turns)
          lost = @wanted.reject { |id, block| kept?(turns, id, block) }
          lost.to_h { |id, block| [id, alone_against(id, block) || "there is no room beside the other fixed stops"] }
        end

        # The best plan found within some seconds: an Answer.
        def solve(seconds: SECONDS)
          return answer(quick, true) if @jobs.empty? || @day.people.empty?

          finish = clock + seconds
          turns, sure = DayProgramme.new(self, @pins).solve(seconds * WHOLE_DAY)
          found = best(turns, quick)
          found = best(bettered(found, finish), found) unless sure
          answer(found, sure)
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

        # Hours of a block that go into a job: the first begins with the walk to it.
        def worked(job, block) = job.worked(*@day.blocks[block], block.zero? ? job.walk_h.to_f : MOVE_H)
        def last = @day.blocks.size - 1

        # What keeps a job out altogether, in words; nil where nothing does.
        def against(job)
          able = @day.people.select { |person| job.takes?(person) }
          lacking = job.needs.find { |need| able.none? { |person| need.met?(person, @day.date) } }
          return "it needs #{lacking.text}, and nobody who comes is" if lacking
          return "it takes #{job.least} people at once" if able.size < job.least
          return NOT_THAT_DAY unless @day.blocks.each_index.any? { |b| worked(job, b).positive? }

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

        def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        def best(*plans) = plans.compact.select { |turns| pinned?(turns) }.max_by { |turns| worth(turns) } || quick

        def answer(turns, sure)
          Answer.new(turns:, done: done(turns), worth: worth(turns), quick: worth(quick), sure:,
                     by: turns.equal?(quick) ? :quick : :solver)
        end

        # Two blocks at a time are solved anew while the others stay as they are, for as long as there is time.
        def bettered(turns, finish)
          pairs = (0..last).to_a.combination(2).to_a
          pairs = [[0]] if pairs.empty?
          pairs.each do |blocks|
            left = finish - clock
            break if left < 0.1

            again, = DayProgramme.new(self, @pins).solve([left, 0.4].min, within: blocks, around: turns)
            turns = best(again, turns)
          end
          turns
        end

        def pinned?(turns) = @pins.all? { |id, block| kept?(turns, id, block) }
        def kept?(turns, id, block) = turns.any? { |turn| turn.job.id == id && [nil, turn.block].include?(block) }

        # What keeps a pin from being met even alone, in words; nil where nothing does.
        def alone_against(id, block)
          ways = @jobs.select { |job| job.id == id }
          return "no method is right for it that day" if ways.empty?

          reasons = ways.map { |job| against(job) || (NOT_THEN unless block.nil? || worked(job, block).positive?) }
          reasons.all? ? reasons.first : nil
        end

        # A plan made by hand.
        class Quick
          def initialize(plan, pins)
            @plan, @day, @pins = plan, plan.day, pins
            @left = plan.jobs.to_h { |job| [job, job.hours] }
            @ways = {} # how a patch is worked on: {id => Job}
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
              next if @left[job] <= 1e-9 || @pins[job.id].to_i > block || otherwise?(job)

              people = crew(job, block, free, tools) or next
              take(job, block, people, free, tools)
            end
          end

          def take(job, block, people, free, tools)
            people.each { |person| free.delete(person) }
            job.each_part.each { |part| @ways[part.id] = job }
            job.tools.each { |key, per| tools[key] -= (people.size / per.to_f).ceil if tools.key?(key) }
            @left[job] -= people.size * @plan.worked(job, block)
            Turn.new(job:, block:, people:)
          end

          # Is a patch of it worked on in another way already?
          def otherwise?(job)
            job.each_part.any? { |part| @ways.fetch(part.id, job) != job }
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
