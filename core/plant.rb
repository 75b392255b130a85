# frozen_string_literal: true

module Thistle
  module Core
    # A plant of the library, invasive, native or harmless, as its YAML file describes it.
    class Plant
      include InText

      attr_reader :key, :name, :scientific, :family, :status, :form, :traits, :characters, :phases,
                  :look_alikes, :removals, :hazards, :disposal, :jobs, :replant, :seed, :fragments, :spot, :matters,
                  :life_source, :also, :regions, :dispersal, :stages, :aspects

      def initialize(key, data)
        @key = key
        @data = data
        @name, @scientific, @family, @status = data.values_at("name", "scientific", "family", "status")
        @form = data.dig("life", "form").to_sym
        @traits = data.dig("life", "traits").map(&:to_sym).freeze
        @life_source = data.dig("life", "source")
        @characters = data["characters"].transform_values { |states| states.except("source") }.freeze
        @phases = data["phases"]
        @removals = data.fetch("methods", {})
        @look_alikes, @hazards, @jobs = data.values_at("look_alikes", "hazards", "jobs").map { |list| list || [] }
        @disposal = data.fetch("disposal", {})
        @replant, @seed, @fragments, @spot, @matters = data.values_at("replant", "seed", "fragments", "spot", "matters")
        @also, @regions, @dispersal = data.fetch("also", []), data.fetch("regions", {}), data["dispersal"]
        @stages = data["stages"]
        @aspects = data.fetch("aspects", {}).except("source").freeze
        freeze
      end

      # hazards of the plant itself: nothing is crushed or broken to see
      HARMS = %w[sap rash burning_sap poison sting].freeze
      WARNED = HARMS + %w[poison_eaten] # what is said beside the plant wherever people decide to touch or taste it
      GRAVE = HARMS - %w[sap] # nothing is cut or dug either

      def inspect = "#<#{self.class.name} #{key}>"
      def invasive? = status == "invasive"
      def native? = status == "native"
      def is?(*any) = any.any? { |trait| traits.include?(trait) }
      def woody? = is?(:woody)
      def aquatic? = form == :aquatic
      def resprouts? = is?(:stump_sprouts, :root_suckers, :crown_sprouts, :layers, :fragments_root)
      def hazardous? = hazards.intersect?(HARMS)
      def spread_by?(way) = dispersal&.fetch("by", [])&.include?(way) || false
      def grave? = hazards.intersect?(GRAVE)

      # Its file, as Replant::Native reads it.
      def to_plant = @data.slice("name", "scientific", "family", "regions", "home", "replant")
      def phase?(name) = phases.any? { |row| row["phase"] == name.to_s }
      def character_source(key) = @data.dig("characters", key, "source")

      # Regions in which it is a weed, or at home.
      def invasive_in?(region) = regions.fetch("invasive", []).include?(region)
      def native_in?(region) = regions.fetch("native", []).include?(region)
      def grows_in?(region) = invasive_in?(region) || native_in?(region)

      # What it is in a region: :weed, :native, :both (one form belongs there, another does not), :harmless, or
      # :elsewhere where its file does not give it. Without a region, what it is by its file's own status.
      def belongs(region)
        return { "invasive" => :weed, "native" => :native }.fetch(status, :harmless) if region.nil?

        weed, home = invasive_in?(region), native_in?(region)
        if home then weed ? :both : :native
        elsif status == "harmless" then :harmless
        else weed ? :weed : :elsewhere
        end
      end

      # Is it removed there? A native of one continent is a weed on another; an invader that is at home is none.
      def weed_in?(region) = { weed: true, both: true, elsewhere: invasive? }.fetch(belongs(region), false)

      # An invader that its file does not give for the region: reported before it is removed.
      def new_to?(region) = invasive? && !region.nil? && !grows_in?(region)

      # Warmth from coming up to the first seed ({"degree_days", "base"}), where its file says so.
      def warmth_to_seed = seed && seed["warmth"]

      # Years until a hundredth of its pieces in the ground live that show nothing, {low, likely, high}; nil where
      # pieces do not grow or nobody knows.
      def fragment_years = fragments && fragments["years"]

      # Years until a hundredth of its seed lives in ground that nobody stirs, {low, likely, high}; nil when it is not
      # by seed that it lasts.
      def seed_bank_years = seed && seed["bank_years"]

      # Years after which the last living seed was found, nil where nobody says.
      def longest_seed_years = seed && seed["longest"]

      # Every source key in the file, for the check at boot.
      def source_keys = sources_used.uniq

      # The source of every fact, one a fact.
      def sources_used = collect_sources(@data)

      private

      def collect_sources(node)
        case node
        when Hash then node.flat_map { |k, v| k == "source" && v.is_a?(String) ? [v] : collect_sources(v) }
        when Array then node.flat_map { |v| collect_sources(v) }
        else []
        end
      end
    end
  end
end
