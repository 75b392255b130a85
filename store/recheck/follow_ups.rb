# frozen_string_literal: true

module Thistle
  module Store
    # Process: what follows from the records of a patch: its state (Core::Recheck::PatchLife), what stands there, and
    # by Core::Recheck::FollowUp its visits, the steps of its courses, which work each look was a look at.
    class FollowUps
      # Call it after any record is added, corrected or taken away, in the same transaction.
      def self.settle(patch)
        patch.reload
        was, now = patch.state, patch.life.state
        patch.update(state: now, closed_on: now == "closed" ? patch.checks.last&.checked_on : nil,
                     **patch.history.standing.columns)
        patch.forget
        new(patch).settle
        Overlaps.settle(patch.property, [patch.id]) if [was, now].one?("closed")
      end

      # A patch, what was parted from it and what took it in.
      def self.settle_kin(patch) = Lineage.new(patch).kin.each { |one| settle(one) }

      # Live patches by their ids.
      def self.settle_each(ids) = Patch.live.where(id: ids).all.each { |patch| settle(patch) }

      # The same for every patch with a record that asks for visits or counts what stands, after the file was brought up
      # to date.
      def self.settle_all
        records = [Treatment, Check, Course, Observation.where(counting)]
        ids = records.flat_map { |kind| kind.distinct.select_map(:patch_id) }.uniq.sort
        ids.each_slice(50) { |some| Patch.db.transaction { settle_each(some) } }
      end

      # Visits that are near follow the year: those that wait for weather, and those that a plant's phases set. Called
      # when the weather may have told something new: at start, on a new day, when weather or a sighting comes in.
      def self.follow_weather(properties, today)
        Task.follow_weather(properties, today)
        ids = Task.undone.exclude(treatment_id: nil).where(event: nil)
                  .where(due_on: (today - LATE)..(today + SOON))
                  .join(:patches, { id: :patch_id, deleted_at: nil }, table_alias: :p)
                  .where(Sequel[:p][:property_id] => properties.map(&:id))
                  .group(Sequel[:tasks][:patch_id]).order { min(:due_on) }.limit(MOST)
                  .select_map(Sequel[:tasks][:patch_id])
        ids.each_slice(20) { |some| Patch.db.transaction { Patch.where(id: some).all.each { |one| new(one).settle } } }
      end

      def self.counting = Observation::AMOUNTS.map { |column| Sequel.~(column => nil) }.reduce(:|)
      private_class_method :counting

      LIVES = %w[hit regrowing quiet].freeze # states in which something may still be alive
      LATE, SOON, MOST = 30, 60, 100 # days around today, and patches, whose visits are set anew

      def initialize(patch)
        @patch = patch
        @rows = patch.tasks_dataset.all
      end

      def settle
        adopt
        answer = follow_up
        keyed, wished = answer.visits.partition(&:key)
        write(keyed)
        wished.each do |visit|
          change(@rows.find { |row| row.id == visit.id }, done_on: visit.done_on, done_by: visit.done_by)
        end
        tick(answer.steps)
        judge(answer.judged)
        @patch.associations.delete(:tasks)
      end

      private

      def follow_up
        wishes = @rows.select { |row| by_hand?(row) }.map { |row| asked(row) }
        @follow_up ||= Core::Recheck::FollowUp.new(@patch.story, returns:, asked: wishes, rest: method(:rest),
                                                                 courses: courses.map { |course| told(course) },
                                                                 plantings:)
      end

      # What was treated is looked at as long as anything of it may live.
      def rest(after) = LIVES.include?(@patch.life.state) ? Core::Recheck::Returns.rest(@patch.plant, site, after) : nil

      def treatments = @treatments ||= @patch.history.of(:treatment)
      def courses = @courses ||= @patch.courses_dataset.eager(:steps).all

      def returns
        return {} unless @patch.plant

        @returns ||= treatments.to_h { |treatment| [treatment.id, treatment.returns(@patch.plant, site)] }
      end

      def site = @site ||= @patch.property.site(@patch.property.today)

      # What plantings of its ground ask for, with what people said of it.
      def plantings
        plans = @patch.history.plans
        return [] if plans.empty?

        made = Task.of_plantings([@patch.id, *plans.map(&:patch_id)]).where(done_by: "hand").select_hash(:key, :done_on)
        @plantings ||= plans.map do |plan|
          counted = plan.plantings.flat_map { |one| one.counts.map { |count| [count.counted_on, count.id] } }
          planted = plan.plantings.filter_map { |one| one.done_on && [one.done_on, one.id] }
          Core::Recheck::FollowUp::Planting.new(id: plan.id, cares: plan.first_years(site).cares, planted:, counted:,
                                                made:)
        end
      end

      # Rows without a key: a person's, and those that were written before there were keys.
      def by_hand?(row) = row.key.nil? && row.course_id.nil? && row.dropped_at.nil?

      def asked(row)
        Core::Recheck::FollowUp::Asked.new(id: row.id, kind: row.kind, due_on: row.due_on,
                                           since: row.since_on || row.treatment&.done_on || row.due_on,
                                           event: row.awaited, happened_on: row.happened_on,
                                           made_on: row.done_by == "hand" ? row.done_on : nil)
      end

      def told(course)
        steps = course.steps.map do |step|
          Core::Recheck::FollowUp::Step.new(id: step.id, kind: step.kind, method: step.method_key, due_on: step.due_on,
                                            said: step.said,
                                            said_on: step.done_on, text: step.asks, source: step.source)
        end
        Core::Recheck::FollowUp::Course.new(id: course.id, chosen_on: course.chosen_on,
                                            left_on: course.left_at&.then { |at| @patch.property.clock.date(at) },
                                            steps:)
      end

      # Rows of earlier versions get their keys; a course's open ones are asked for anew.
      def adopt
        old = @rows.select { |row| row.key.nil? }
        planned, others = old.partition(&:course_id)
        others.select! { |row| row.treatment_id || row.kind == "planting" }
        return if planned.empty? && others.empty?

        give_keys(others.sort_by { |row| [row.due_on, row.id] })
        planned.select(&:open?).each(&:delete)
        @follow_up = nil
        @rows = @patch.tasks_dataset.all
      end

      # What work asked for was known by the work and its words, what a planting asked for by its words alone.
      def give_keys(rows)
        wanted = follow_up.visits.select(&:key).group_by do |visit|
          [visit.from.first == :treatment ? visit.from.last : nil, visit.text]
        end
        rows.each do |row|
          same = wanted.fetch([row.treatment_id, row.reason], [])
          row.this.update(key: same.shift.key) if same.any?
        end
      end

      def write(visits)
        known = @rows.select(&:key).to_h { |row| [row.key, row] }
        visits.each do |visit|
          known.key?(visit.key) ? change(known[visit.key], **columns(visit, known[visit.key])) : add(visit)
        end
        gone = known.keys - visits.map(&:key)
        Task.where(id: known.values_at(*gone).map(&:id)).delete if gone.any?
      end

      # What was taken back of a planting before its ground was merged or parted stays so.
      def add(visit)
        elsewhere = visit.kind == "planting" ? @patch.history.plans.map(&:patch_id) : []
        dropped = Task.of_plantings(elsewhere).where(key: visit.key).get(:dropped_at) if elsewhere.any?
        Task.create(patch_id: @patch.id, key: visit.key, dropped_at: dropped, **columns(visit, nil))
      end

      # What has happened stays: its day was measured.
      def columns(visit, row)
        kept = row&.happened_on && row.since_on == visit.since
        kind, id = visit.from
        { kind: visit.kind, due_on: kept ? row.due_on : visit.due_on,
          happened_on: kept ? row.happened_on : visit.happened_on, reason: visit.text,
          source: visit.source, event: visit.event && JSON.generate(visit.event.to_data), since_on: visit.since,
          done_on: visit.done_on,
          done_by: visit.done_by, treatment_id: kind == :treatment ? id : nil, check_id: kind == :check ? id : nil,
          course_id: kind == :course ? id : nil }
      end

      # Only what is another is written.
      def change(row, **columns)
        other = columns.reject { |column, value| row[column] == value }
        row.this.update(other) if other.any?
      end

      def tick(done)
        courses.flat_map(&:steps).select { |step| step.said.nil? }.each do |step|
          on = done[step.id]&.on
          step.this.update(done_on: on) unless step.done_on == on
        end
      end

      def judge(judged)
        known = Check.where(id: judged.keys).select_hash(:id, :treatment_id)
        (judged.to_a - known.to_a).each { |id, treatment_id| Check.where(id:).update(treatment_id:) }
      end
    end
  end
end
