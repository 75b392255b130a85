# frozen_string_literal: true

module Thistle
  # Work at a size: a day of 40 patches and 15 people, a tap in the field, the pace of 5 000 records.
  class WorkBench
    RECORDS = 5_000

    def initialize(bench, property)
      @bench, @property = bench, property
      @db = Sequel::Model.db
      @today = Store::Setting.today
    end

    def run
      day
      tap
      year
    end

    private

    def day
      work_day = planned
      Store::Proposal.new(work_day, @today).call
      jobs = Store::DayJobs.new(work_day, @today)
      plan = Core::Work::DayPlan.new(jobs.day, jobs.jobs)
      quick = @bench.time(5) { Core::Work::DayPlan.new(jobs.day, plan.jobs).quick }
      whole = @bench.time(3) { Store::Proposal.new(work_day, @today).call }
      puts format("%-52s %8.1f ms   (asked: under 2 s; the quick plan %.1f ms)",
                  "a day, #{jobs.entries.size} ways, 15 people", whole * 1000, quick * 1000)
    end

    def planned
      Store::WorkDay.create(property_id: @property.id, held_on: @today + 4, starts_at: "09:00", ends_at: "14:00",
                            hands: 11, people_ids: JSON.generate(Store::Person.select_order_map(:id)))
    end

    # On the server: the answer to one tap, and the card that follows it.
    def tap
      day = Store::WorkDay.exclude(answer: nil).first
      patch = Store::Patch[day.answered[:walk].first]
      n = 0
      kept = @bench.time do
        Store::Tap.keep(day, key: "bench-#{n += 1}", kind: "plants", at: Time.now.utc, patch_id: patch.id, amount: 1)
      end
      card = @bench.time { @bench.get("/work/days/#{day.id}/field/#{patch.id}") }
      light = @bench.time { @bench.get("/find") }
      @bench.say "a tap and its card", kept + card, "a light page", light, 10
      puts format("%-52s %8.1f ms   (asked: under 100 ms)", "the same", (kept + card) * 1000)
    end

    def year
      fill
      sums, pace = @bench.time(5) { summed }, @bench.time(5) { Store::OwnPace.of }
      puts format("%-52s %8.1f ms   (asked: under 100 ms; the pace of the newest %d anew %.1f ms)",
                  "#{RECORDS} records summed by person and method", sums * 1000, Store::OwnPace::MOST, pace * 1000)
    end

    def summed
      works = @db[:treatments].where(deleted_at: nil)
      works.group(:method_key).select_hash(:method_key, Sequel.function(:sum, Sequel.lit("crew_size * hours")).as(:h))
      Store::Person.live.all.each { |person| person.records.sum(:hours) }
    end

    def fill
      ids = @db[:patches].limit(500).select_map(:id)
      rows = Array.new(RECORDS) do |n|
        { patch_id: ids[n % ids.size], done_on: @today - (n % 300), method_key: %w[hand_pull cut_stump][n % 2],
          crew_size: 2, hours: 1.5, stems_done: 30, people_ids: "[#{1 + (n % 4)}]", created_at: Time.now.utc }
      end
      @db.transaction { rows.each_slice(500) { |slice| @db[:treatments].multi_insert(slice) } }
    end
  end
end
