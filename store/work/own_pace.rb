# frozen_string_literal: true

module Thistle
  module Store
    # Reading: how long the group takes against planning values, by its own records (Core::Work::Pace).
    module OwnPace
      MOST = 3000 # records, the newest
      LOOKED_AT = %i[patch_id method_key crew_size hours plants_done stems_done area_m2 people_ids].freeze
      ROUND_H = 0.25 # of any visit: getting there and going round, however few stand (memory)
      LEAST = 5 # records of a method before they speak for it

      module_function

      # The Core::Work::Pace of all records, or of some.
      def of(records = Treatment.where(deleted_at: nil))
        volunteers = volunteers_known
        Core::Work::Pace.new(rows(records).filter_map { |row| seen(row, volunteers) })
      end

      # {"method" => {times: {"size" => times the planned hours}, records:}} where there are enough records, and under
      # ANY what the group takes with a method that it has no records of; the same value until a record changes.
      def factors
        works = Treatment.where(deleted_at: nil)
        key = [:pace, works.count, works.max(:id), works.max(:created_at), Amendment.max(:id)]
        Core::Kept::ANSWERS.fetch(key) { table(of) }
      end

      def table(pace)
        known = pace.cells.select { |method, _| pace.of(method).count >= LEAST }.group_by(&:first)
        found = known.to_h do |method, cells|
          times = cells.to_h { |_, size| [size, pace.of(method, size).median.round(3)] }.freeze
          [method, { times:, records: pace.of(method).count }.freeze]
        end
        any = Core::Decide::Effort::ANY
        found[any] = { times: { nil => pace.of(any).median.round(3) }.freeze, records: 0 }.freeze if found.any?
        found.freeze
      end

      # What is looked at of each, with its patch's plant and the size of its stems.
      def rows(records)
        newest = records.reverse(:id).limit(MOST)
                        .select(*LOOKED_AT)
        patches = Patch.where(id: newest.select(:patch_id)).select_hash(:id, %i[stem_size plant_key])
        newest.naked.all.each { |row| row[:size], row[:plant_key] = patches[row[:patch_id]] }
      end

      # One record against what is planned for as much; nil where it does not say how much.
      def seen(row, volunteers)
        removal = Core::Knowledge.shipped.removal(row[:method_key])
        task = removal.task(Core::Knowledge.shipped.plants[row[:plant_key]])
        amount = { plant: row[:plants_done] || row[:stems_done], stem: row[:stems_done] || row[:plants_done],
                   m2: row[:area_m2], patch: 1 }[task.per]
        return unless amount&.positive?

        hands = row[:people_ids] != "[]" && JSON.parse(row[:people_ids]).intersect?(volunteers)
        Core::Work::Pace::Seen.new(method: removal.key, size: row[:size], volunteers: hands,
                                   hours: row[:crew_size] * row[:hours],
                                   planned: ROUND_H + (amount * task.at(row[:size]) / 60.0))
      end

      def volunteers_known
        Person.all.select { |one| one.roles_kept.intersect?(%w[volunteer trainee]) }.map(&:id)
      end
      private_class_method :table, :rows, :seen, :volunteers_known
    end
  end
end
