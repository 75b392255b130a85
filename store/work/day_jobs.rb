# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what a work day may hold: for the patches that rank first, the best way that is right on that day, and
    # one without herbicide beside it, each as a Core::Work::Job.
    class DayJobs
      MOST = 40 # patches
      CROWD = 12 # people who are of use at one patch at once
      EACH_H = 0.5 # hours of work for each, below which more people are in each other's way
      WALK_KM_H, SET_UP_H = 3.5, 0.1 # with tools; putting down and picking up (memory)

      # What a job is made of; hours: Core::Work::Hours.
      Entry = Core::Value.define(:job, :patch, :removal, :verdict, :facts, :hours)

      attr_reader :work_day

      def initialize(work_day, today)
        @work_day, @today, @property = work_day, today, work_day.property
        @date, @site = work_day.held_on, @property.site(today)
      end

      # [Entry], by rank.
      def entries = @entries ||= ranked.flat_map { |row| ways(row) }

      # As a plan takes them: small ones as rounds, but for those that somebody holds or leaves out.
      def jobs = Core::Work::Rounds.new(entries.map(&:job), alone: @work_day.pins_kept.keys + @work_day.bans_kept).jobs

      def entry(job) = by_job.fetch([job.id, job.method])

      # As core plans it.
      def day
        Core::Work::Day.new(date: @date, blocks: @work_day.blocks(@site), people: @work_day.crew,
                            tools: KitItem.usable(@work_day.property.group_id).merge(@work_day.tools_kept))
      end

      # Where the walk begins: the way in, else the middle of the patches.
      def home = @home ||= @property.way_in || middle(ranking.patch(ranked.first.id))

      # m east and north of the start.
      def at(patch) = Core::Degrees.flat(middle(patch), home)

      # What its hours ask of bodies (Core::Work::Bodies), with what somebody typed over.
      def bodies
        @bodies ||= begin
          span = @work_day.from_h..@work_day.to_h_of_day
          hours = @site.hours.select { |now| now.date == @date && span.cover?(now.at) }
          Core::Work::Bodies.new(hours, @work_day.felt_kept)
        end
      end

      private

      def by_job = @by_job ||= entries.to_h { |one| [[one.job.id, one.job.method], one] }
      def ranking = @ranking ||= Ranking.new(@property, @today, kept: Core::Kept::MOVES)

      def ranked
        @ranked ||= begin
          rows = Core::Decide::Priority.new(ranking.candidates, @property.rank_weights).rows
          held = @work_day.pins_kept.keys
          found = rows.first(MOST) | rows.select { |row| held.include?(row.id) }
          found.tap { ranking.read(found.map(&:id)) }
        end
      end

      def ways(row)
        facts = row.candidate.facts.with(date: @date)
        bench = Core::Decide::Bench.new(facts, @site)
        works = bench.verdicts.select { |one| one.removal.removes? || one.removal.is?(:freeing) }
        right = works.select(&:go?)
        two = [right.first, right.find { |one| !one.removal.herbicide? }].compact.uniq(&:removal)
        two = [works.find(&:arguable?)].compact if two.empty?
        two.filter_map { |one| entry_of(row, facts, bench, one) }
      end

      def entry_of(row, facts, bench, verdict)
        patch, removal = ranking.patch(row.id), verdict.removal
        hours = Core::Work::Hours.new(removal, facts, soil: bench.situation.soil, felt: bodies.felt,
                                                      day_hours: @work_day.to_h_of_day - @work_day.from_h,
                                                      cut_before: cut_before?(patch))
        likely = hours.likely
        return unless likely&.positive?

        Entry.new(job: job(row, facts, removal, likely), patch:, removal:, verdict:, facts:, hours:)
      end

      def job(row, facts, removal, likely)
        patch = ranking.patch(row.id)
        least = [removal.crew, @work_day.heads > 1 ? 2 : 1].max
        Core::Work::Job.new(id: row.id, method: removal.key, hours: likely, least:, fit: fit(row.id, facts, removal),
                            score: row.score * facts.kill(removal)["likely"] / 100.0,
                            most: (likely / EACH_H).ceil.clamp(least, [CROWD, least].max),
                            needs: Core::Work::Job.needs(removal, size: facts.size),
                            cannot: cannot(facts, removal), tools: tools(facts, removal), late: in_seed?(facts.plant),
                            at: at(patch), walk_h: (Math.hypot(*at(patch)) / (WALK_KM_H * 1000)) + SET_UP_H)
      end

      def cannot(facts, removal)
        [("thorns" if facts.plant.hazards.intersect?(%w[thorns sap sting burning_sap rash])),
         ("heights" if facts.slope == "steep"),
         ("water" if facts.plant.aquatic? || removal.is?(:aquatic))].compact
      end

      # What the stems ask for, and the kinds that it is counted as where nobody counts it by itself.
      def tools(facts, removal)
        kit = Core::Knowledge.shipped.kit
        kinds = removal.kit.to_h { |key| [key, kit.fetch(key).fetch("share")] }
        kinds.merge(Core::Work::Tools.shares(removal, plant: facts.plant, size: facts.size))
      end

      # Hours of that day that are fit for it, where the forecast reaches and nobody holds it against them; else any.
      def fit(id, facts, removal)
        limits = Core::Season::Limits.of(removal) or return [[0, 24]]
        return [[0, 24]] unless @date.between?(@today, @site.horizon)
        return [[0, 24]] if @work_day.despite_kept.key?(id) && removal.judged_on_the_ground?

        label = facts.labels&.[](limits.key)
        fits[[limits, label]] ||= begin
          hours = Core::Season::Fit.new(@site, limits.under(label)).hours
          hours.select { |said| said.hour.date == @date && said.fit? }.map { |said| [said.hour.at, said.hour.at + 1] }
        end
      end

      def fits = @fits ||= {}
      def in_seed?(plant) = @site.calendar(plant).phases_on(@date).include?(:ripe_seed)

      def cut_before?(patch)
        patch.treatments.any? { |work| work.removal.is?(:cutting, :topping) && !work.removal.herbicide? }
      end

      def middle(patch)
        [(patch.values[:west] + patch.values[:east]) / 2, (patch.values[:south] + patch.values[:north]) / 2]
      end
    end
  end
end
