# frozen_string_literal: true

module Thistle
  module Web
    # How people say what stands of a patch (Store::PatchStanding::There), and which record says so.
    module Stands
      extend self

      # "1 plant and 25 seedlings", "about 44 stems", "none"; nil where nobody counted.
      def amount(there)
        return unless there.counted?

        named = { "plant" => there.plants, "stem" => there.stems, "seedling" => there.seedlings }
        words = named.filter_map { |unit, number| Words.count(number, unit) if number&.positive? }
        return "none" if words.empty?

        "#{"about " if there.estimated}#{[words[..-2].join(", "), words.last].reject(&:empty?).join(" and ")}"
      end

      # [number, unit] for a stamp; nil where nobody counted.
      def stamp(there)
        return unless there.counted?
        return seedlings(there.seedlings) if there.number.zero? && there.seedlings&.positive?

        unit = there.plants ? "plant" : "stem"
        [there.number, there.number == 1 ? unit : "#{unit}s"]
      end

      # What it rests on, keys of knowledge/sources.yml: records, and planning values where more than a count is said.
      def standings(there) = there.estimated ? %w[own_records memory] : %w[own_records]

      # Whose word that is: "by the check of 3 June 2026", with what came after it.
      def source(there)
        state = there.state
        words = [counted(state)]
        words << "less the treatment of #{Words.full_day(state.worked_on)}, which nobody checked yet" if state.worked_on
        words << "by its share of the ground" if state.shared
        words << "plus growth since" if there.grown
        words.join(", ")
      end

      private

      def seedlings(number) = [number, number == 1 ? "seedling" : "seedlings"]

      def counted(state)
        day = Words.full_day(state.since)
        return "taken from its area, mapped on #{day}" unless state.counted

        { "check" => "by the check of #{day}", "observation" => "as seen on #{day}" }
          .fetch(state.from&.first, "as mapped on #{day}")
      end
    end
  end
end
