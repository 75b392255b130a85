# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # What a day came to, from its records.
      class DayDone
        attr_reader :work_day

        def initialize(work_day, today)
          @work_day, @today = work_day, today
        end

        def works
          @works ||= Store::Treatment.where(work_day_id: work_day.id, deleted_at: nil).order(:id).eager(:patch).all
        end

        def people = work_day.people.map(&:name)
        def person_hours = works.sum { |work| work.crew_size * work.hours }
        def plants = removing.sum { |work| work.plants_done.to_i }
        def stems = removing.sum { |work| work.stems_done.to_i }
        def area_m2 = removing.sum { |work| work.area_m2.to_f }

        # Trees that climbers were taken off.
        def freed
          works.select { |work| work.removal.is?(:freeing) }.sum { |work| work.plants_done || work.stems_done || 0 }
        end

        # Patches that were worked on before their seed fell this year.
        def in_time = works.select { |work| work.seed_fall == "none" && work.patch.plant&.phase?(:ripe_seed) }

        # Ground beside the walk that was looked over, m².
        def searched_m2
          Store::Search.where(work_day_id: work_day.id, deleted_at: nil).sum(:area_m2).to_f
        end

        # {patch => [before, after]}, where both were taken.
        def pictures
          works.map(&:patch).uniq.to_h { |patch| [patch, Store::Picture.pairs(patch).find(&:all?)] }.compact
        end

        # {name => hours}; whoever is on the list.
        def hours_by_person
          names = Store::Person.names
          works.each_with_object(Hash.new(0.0)) do |work, all|
            JSON.parse(work.people_ids).each { |id| all[names[id]] += work.hours if names[id] }
          end
        end

        private

        def removing = works.select { |work| work.removal.removes? }
      end
    end
  end
end
