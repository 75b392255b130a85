# frozen_string_literal: true

module Thistle
  module Store
    # A patch as the rules look at it: what they ask, from its own columns, from what it and its property keep, and from
    # what lies around.
    module PatchFacts
      # The stance on herbicide that this patch keeps, where it differs from the property's.
      def own_stance = schools == "{}" ? nil : own_schools["herbicide"]

      # The school that counts for each question: this patch's, the property's, the default.
      def school_answers
        if schools == "{}"
          property.schools_kept
        else
          Core::Decide::School.settle(JSON.parse(schools, symbolize_names: true), property.school_answers)
        end
      end

      # Where it differs from the property: {question => option}.
      def own_schools = JSON.parse(schools)

      # What the rules look at, before anyone pins anything. nil without a plant.
      def facts(today)
        return unless plant

        told = { plant:, settled: settled?, date: today, new_planting: young_planting?(today),
                 kills: property.kills[plant.key] }
        Core::Decide::Facts.new(**kept_here, **counted(today), **stood_in, **told)
      end

      # How much of it stands there on a day, in what sizes. Where only young ones are left they are what is counted.
      def counted(today)
        seen, found = amount, history.there(today)
        grown = stem_size if Core::Removal.sizes_of(plant).include?(stem_size)
        area = seen.infested&.first || gross_m2
        told = { few: few?, cover: seen.cover, area_m2: area && (area * found.share) }
        return { **told, size: "seedling", plants: found.seedlings } if found.only_seedlings?

        { **told, size: grown, sizes: sizes_of(found, seen), **found.to_h.slice(:plants, :stems, :seedlings) }
      end

      # At most a few of them, by the last count?
      def few? = (alive || plants || stems)&.then { |count| count <= Core::Decide::Facts::FEW }

      # Stems by size: in the shares that were seen; after a check those that stand, and the seedlings beside.
      def sizes_of(found, seen)
        return scaled(seen.stems, found.stems) if found.state.from.nil? || found.state.from.first == "observation"
        return unless stem_size && found.stems && found.seedlings&.positive?

        { stem_size => found.stems, "seedling" => found.seedlings }
      end

      # {size => number} that comes to a sum: the most of them take what rounding leaves.
      def scaled(sizes, sum)
        whole = sizes&.values&.sum
        return sizes if whole.nil? || sum.nil? || whole == sum || whole.zero?

        parts = sizes.transform_values { |number| (number * sum.fdiv(whole)).floor }
        parts.merge(parts.max_by(&:last).first => parts.values.max + sum - parts.values.sum)
      end

      # Where it stands, and what is known of it there.
      def stood_in
        freed_on = history.freed_on if plant.is?(:climbing)
        { freed_on:, water_m:, slope: lie, natives_near:, zones: zones_in_reach, footing:, aim:, new_here: first?,
          belongs: plant.belongs(property.region), reported: first? && !reports_dataset.empty? }
      end

      # What the property, or this patch before it, keeps: stance, schools, rules, labels, what work costs.
      def kept_here
        return property.kept_facts if schools == "{}"

        property.kept_facts.merge(stance: own_stance || property.stance, schools: school_answers)
      end

      # Is it reported before anyone removes it?
      def first? = property.reports_first?(plant)

      # The steeper of what a person said and what the grid measures.
      def lie
        measured = slope_deg && Core::Survey::Elevation::Lie.new(slope: slope_deg).kind
        mapped = "steep" if zones_in_reach&.any? { |zone| zone.kind == "steep" && zone.touches? }
        [slope, measured, mapped].compact.max_by { |kind| Core::Decide::Facts::SLOPES.index(kind) }
      end

      # Was something planted on its ground in the last years, so that only hands may weed? nil for not that anyone
      # wrote down.
      def young_planting?(today) = property.together.planted_young(today).include?(id) || nil
    end
  end
end
