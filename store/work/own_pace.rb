# frozen_string_literal: true

module Thistle
  module Store
    # Reading: how long the group takes against planning values, by its own records (Core::Work::Pace).
    module OwnPace
      MOST = 3000 # records, the newest
      LEAST = 5 # records of a method before they speak for it

      module_function

      # The Core::Work::Pace of all records, or of some.
      def of(records = Treatment.where(deleted_at: nil))
        volunteers = volunteers_known
        found = records.reverse(:id).limit(MOST).eager(:patch).all
        Core::Work::Pace.new(found.filter_map { |work| seen(work, volunteers) })
      end

      # {"method" => {"size" => times the planned hours}} where there are enough records; the same value until a record
      # changes.
      def factors
        works = Treatment.where(deleted_at: nil)
        key = [:pace, works.count, works.max(:id), works.max(:created_at), Amendment.max(:id)]
        Core::Kept::ANSWERS.fetch(key) { table(of) }
      end

      def table(pace)
        pace.cells.select { |method, _| pace.of(method).count >= LEAST }.group_by(&:first).to_h do |method, cells|
          [method, cells.to_h { |_, size| [size, pace.of(method, size).median.round(3)] }.freeze]
        end.freeze
      end

      # One record against what is planned for as much; nil where it does not say how much.
      def seen(work, volunteers)
        removal = work.removal
        amount = { stem: work.plants_done || work.stems_done, m2: work.area_m2, patch: 1 }[removal.effort_per]
        return unless amount&.positive?

        size = work.patch.stem_size
        hands = JSON.parse(work.people_ids).intersect?(volunteers)
        Core::Work::Pace::Seen.new(method: removal.key, size:, volunteers: hands, hours: work.crew_size * work.hours,
                                   planned: amount * removal.minutes(size) / 60.0)
      end

      def volunteers_known
        Person.all.select { |one| one.roles_kept.intersect?(%w[volunteer trainee]) }.map(&:id)
      end
      private_class_method :table, :seen, :volunteers_known
    end
  end
end
