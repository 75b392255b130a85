# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what was done on properties between two days, for all plants or some: ground searched and treated, hours
    # and whose, acids, checks, trees freed, natives planted. Each figure can be counted again from its records.
    class SeasonFigures
      # area_m2: each search counted, ground that was searched twice counts twice.
      Searched = Core::Value.define(:searches, :area_m2, :absences)
      # A plant treated by a method: area_m2, plants, stems as far as they were said; hours of people.
      Treated = Core::Value.define(:plant, :method, :treatments, :patches, :area_m2, :plants, :stems, :hours)
      # Person-hours: of people on the list who are volunteers or trainees and nothing that is paid for, of the others
      # on it, and of whoever was there beside the list.
      Hours = Core::Value.define(:volunteers, :staff, :unnamed) do
        def all = volunteers + staff + unnamed
      end
      # grams of each acid; untold: treatments with herbicide whose acid cannot be told.
      Acids = Core::Value.define(:grams, :untold)
      Checked = Core::Value.define(:checks, :clean, :patches, :patches_clean, :closed)
      # natives: plants put in; sown: plantings of seed; alive of looked_at, by the last count of each.
      Planted = Core::Value.define(:plantings, :natives, :sown, :alive, :looked_at)

      VOLUNTEERS = %w[volunteer trainee].freeze
      PAID = %w[steward crew_lead applicator].freeze # who has such a role comes as staff

      attr_reader :properties, :range, :plants

      # plants: keys, nil for all; today: of the place.
      def initialize(properties, range, today, plants: nil)
        @properties, @range, @today, @plants = properties, range, today, plants
      end

      # The same a year before.
      def year_before = self.class.new(properties, (range.first << 12)..(range.last << 12), @today, plants:)

      def searched
        found = Search.where(property_id: ids, deleted_at: nil, searched_on: range)
        sought = Search.db[:search_plants].where(search_id: found.select(:id))
        if plants
          sought = sought.where(plant_key: plants)
          found = found.where(id: sought.select(:search_id))
        end
        Searched.new(searches: found.count, area_m2: found.sum(:area_m2).to_f,
                     absences: sought.where(found: false).count)
      end

      # [Treated], the most hours first.
      def treated
        @treated ||= begin
          rows = works.join(:patches, id: Sequel[:treatments][:patch_id])
                      .group(:plant_key, :method_key).select(*TREATED).naked.all
          rows.map { |row| Treated.new(**row, hours: row[:hours].to_f) }
              .sort_by { |one| [-one.hours, one.plant.to_s, one.method] }
        end
      end

      # Ids of patches that were treated or checked.
      def visited
        looks = Check.where(deleted_at: nil, checked_on: range, patch_id: patches)
        works.distinct.select_map(Sequel[:treatments][:patch_id]) | looks.distinct.select_map(:patch_id)
      end

      # The Hours, and {person id => hours} of those on the list.
      def hours = @hours ||= parted.first
      def by_person = parted.last

      def acids
        labels, grams, untold = Labels.new, Hash.new(0.0), 0
        works.exclude(active_key: nil).each do |work|
          poured = work.poured(labels)
          told = poured.flat_map { |one| one.label.ingredients.map { |part| [part.active.acid, one.acid(part)] } }
          next untold += 1 if told.empty? || told.any? { |_, some| some.nil? }

          told.each { |acid, some| grams[acid] += some }
        end
        Acids.new(grams: grams.sort.to_h, untold:)
      end

      # REVIEW: :Tried of all properties together, by plant and method.
      def tried
        every = properties.flat_map { |one| Review.new(one, range, @today).tried }
        every = every.select { |one| plants.include?(one.plant.key) } if plants
        every.group_by { |one| [one.plant, one.removal] }.map do |_, some|
          counts = { treated: some.sum { |one| one.control.treated }, alive: some.sum { |one| one.control.alive } }
          some.first.with(control: Core::Recheck::Control.of(**counts), hours: some.sum(&:hours),
                          records: some.flat_map(&:records))
        end.sort_by { |one| [-one.control.treated, one.plant.name, one.removal.name] }
      end

      def checked
        looks = Check.where(deleted_at: nil, checked_on: range, patch_id: patches).order(:checked_on, :id)
                     .eager(:patch).all
        last = looks.to_h { |look| [look.patch_id, look] }.values
        Checked.new(checks: looks.size, clean: looks.count { |look| clean?(look) }, patches: last.size,
                    patches_clean: last.count { |look| clean?(look) },
                    closed: Patch.where(id: patches, closed_on: range).count)
      end

      # Trees that climbers were cut from, as counted; and treatments that freed trees without a count.
      def freed
        freeing = Core::Knowledge.shipped.methods_of_removal.values.select { |one| one.is?(:freeing) }.map(&:key)
        counts = works.where(method_key: freeing).select_map(%i[plants_done stems_done])
        [counts.sum { |plants, stems| plants || stems || 0 }, counts.count { |some| some.compact.empty? }]
      end

      def planted
        found = Planting.where(deleted_at: nil, done_on: range, patch_id: patches).eager(:counts).all
        last = found.filter_map { |one| one.counts.reverse.find(&:alive) }
        Planted.new(plantings: found.size, natives: found.sum { |one| one.in_ground.to_i },
                    sown: found.count { |one| one.in_ground.nil? }, alive: last.sum(&:alive),
                    looked_at: last.sum(&:looked_at))
      end

      # [[patch, before, after]] whose pictures were taken within the days, so many.
      def pictures(most)
        taken = Picture.live.where(patch_id: patches, taken_on: range, moment: "after").distinct.select_map(:patch_id)
        Patch.where(id: taken).order(:code).limit(most).all.filter_map do |patch|
          before, after = Picture.pairs(patch).find { |one, other| one && other && range.cover?(other.taken_on) }
          [patch, before, after] if before
        end
      end

      private

      # Nothing alive, at a time when it would have shown.
      def clean?(look)
        property = (@of_ids ||= properties.to_h { |one| [one.id, one] }).fetch(look.patch.property_id)
        look.patch.associations[:property] = property
        !look.live? && look.patch.plant && look.patch.shows?(look.checked_on)
      end

      def ids = @ids ||= properties.map(&:id)

      # Ids of the patches of these properties and plants.
      def patches
        found = Patch.live.unordered.where(property_id: ids)
        (plants ? found.where(plant_key: plants) : found).select(:id)
      end

      def works
        Treatment.where(Sequel[:treatments][:deleted_at] => nil, Sequel[:treatments][:done_on] => range,
                        Sequel[:treatments][:patch_id] => patches)
      end

      HOURS = Sequel.function(:sum, Sequel[:hours] * Sequel[:crew_size])
      COUNT = Sequel.function(:count).*
      TREATED = [Sequel[:plant_key].as(:plant), Sequel[:method_key].as(:method), COUNT.as(:treatments),
                 HOURS.as(:hours), Sequel.function(:count, Sequel.lit("DISTINCT patch_id")).as(:patches),
                 Sequel.function(:sum, :area_m2).as(:area_m2), Sequel.function(:sum, :plants_done).as(:plants),
                 Sequel.function(:sum, :stems_done).as(:stems)].freeze
      private_constant :HOURS, :COUNT, :TREATED

      def parted
        @parted ||= begin
          by_person, unnamed, by_name = Hash.new(0.0), 0.0, Person.by_name(@property&.group_id)
          works.select_map(%i[people_ids people hours crew_size]).each do |listed, written, hours, crew|
            there = JSON.parse(listed) | Person.split(written.to_s).filter_map { |name| by_name[name.downcase] }
            there.each { |id| by_person[id] += hours.to_f }
            unnamed += hours.to_f * [crew.to_i - there.size, 0].max
          end
          [summed(by_person, unnamed), by_person.freeze]
        end
      end

      def summed(by_person, unnamed)
        volunteers, staff = by_person.partition { |id, _| volunteer?(id) }.map { |some| some.sum(&:last) }
        Hours.new(volunteers:, staff:, unnamed:)
      end

      def volunteer?(id)
        roles = (@roles ||= Person.select_hash(:id, :roles)).fetch(id, "[]").then { |text| JSON.parse(text) }
        roles.intersect?(VOLUNTEERS) && !roles.intersect?(PAID)
      end
    end
  end
end
