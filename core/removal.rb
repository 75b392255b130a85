# frozen_string_literal: true

module Thistle
  module Core
    # A method of removal as its YAML file describes it: what it is, what it takes, what it usually kills.
    class Removal
      # Stem sizes in order: a seedling, a pencil, a thumb, a wrist (about 8 cm), wider.
      SIZES = %w[seedling pencil thumb wrist wider].freeze
      # Of what has no stem to measure they are stages of its life: a seedling, a young plant or rosette, a grown one.
      AGES = { "seedling" => "seedlings", "pencil" => "young plants and rosettes", "thumb" => "grown plants" }.freeze
      WAYS = %w[forms not_forms any all none].freeze
      private_constant :WAYS
      HALF = 50 # percent killed in a pass from which a method is said to kill, not to hold down (memory)

      attr_reader :key, :name, :tags, :text, :brief, :numbers, :kit, :tools, :roles, :crew, :cautions, :dose_ml, :suits,
                  :follow_up, :cost, :source

      def initialize(key, data)
        @key = key
        @data = data
        @name, @text, @numbers, @source = data.values_at("name", "text", "numbers", "source")
        @brief, @kit, @tools, @roles = data.values_at("brief", "kit", "tools", "roles")
        @cautions, @follow_up = data.values_at("cautions", "follow_up")
        @suits, @cost, @crew = data["suits"], data.fetch("cost", {}), data.fetch("crew", 1)
        @tags = data["tags"].map(&:to_sym).freeze
        @dose_ml = data.fetch("dose_ml", {})
        freeze
      end

      # The sizes that plants of a kind come in.
      def self.sizes_of(plant) = plant.woody? || plant.is?(:tussock) ? SIZES : AGES.keys

      def is?(*any) = any.any? { |tag| tags.include?(tag) }
      def herbicide? = @data["herbicide"] != "none"
      def herbicide = @data["herbicide"].to_sym
      # Where its product goes, a key of Mix::Product::USES; nil where it takes none.
      def use = @data["use"]
      # What it asks of the weather otherwise than its kind of work does (Season::Limits).
      def limits = @data.fetch("limits", {}).transform_keys(&:to_sym)
      def spray_l_per_100m2 = @data["spray_l_per_100m2"]
      # Percent of what is used that reaches the plant: { low, high, source }; nil for work without herbicide.
      def reaches = @data["reaches"]

      # What a plant's file says of it, or of the method that it is like; nil where the file is silent.
      def told(plant) = plant.removals[key] || (like && plant.removals[like])
      def like = @data["like"]
      def told?(plant) = !told(plant).nil?
      # Never done to the plant; done in vain; done to hold it down for a season, not to kill it.
      def harms?(plant) = told(plant)&.key?("backfires")
      def pointless?(plant) = told(plant)&.key?("pointless")
      def holds?(plant) = told(plant)&.key?("holds")

      # Does the plant's file say of it that it likely kills at least half, in a pass or in the years that it takes?
      def told_to_kill?(plant) = !told(plant)&.dig("kill").nil? && ends?(plant)

      # Does it likely kill at least half, in a pass or in the years that it takes?
      def ends?(plant)
        left = 1 - (kill(plant)["likely"] / 100.0)
        1 - (left**takes_years(plant)) >= HALF / 100.0
      end

      # Years in a row that it is done to a plant before it has killed what it can.
      def takes_years(plant) = told(plant)&.fetch("takes_years", nil) || 1

      # May a crew judge for itself whether the day's weather and ground are fit? Not where a label decides, nor where
      # wind, wet or cold can hurt someone.
      def judged_on_the_ground? = !herbicide? && !is?(:felling, :machine, :aquatic, :burning)

      # Does it take plants out, or only mark, report or stop seed?
      def removes? = !is?(:marking, :reporting, :seed_stop, :freeing)

      # Does it tear root or stem, so that pieces of what lives on stay in the ground or the water?
      def tears? = is?(:pulling, :digging, :aquatic)

      # Does it take the top and leave the root untreated, so that roots send up suckers?
      def wakes? = is?(:cutting, :felling, :mulching, :girdling) && !is?(:stem_herbicide)

      # Is it for plants like this by habit, root and stem, or how they live, whether or not the plant's file names it?
      def suits?(plant)
        !suits.nil? && (fits?(plant, suits) || ways.any? { |way| fits?(plant, way.slice(*WAYS)) })
      end

      # How a plant lives that its file need not name it for: in words, where one way of its file fits; nil where none
      # does.
      def carried(plant, size)
        way = ways.find do |one|
          fits?(plant, one.slice(*WAYS)) && (one["sizes"].nil? || one["sizes"].include?(size))
        end
        way && way["text"]
      end

      # What would have to be true of a plant whose file does not name it.
      def needs = @data["needs"] || "nothing of it were left that lives"

      # Stem sizes that it is for; nil for any.
      def sizes = suits&.fetch("sizes", nil)

      NONE = { "low" => 0, "likely" => 0, "high" => 0 }.freeze

      # What a pass kills, or a year of work that lasts longer, in percent: {low, likely, high, source}; the plant's own
      # value goes before the method's.
      def kill(plant = nil)
        own = plant && told(plant)
        return { "source" => own["source"] }.merge(own["kill"]) if own&.key?("kill")
        return NONE.merge("source" => own["source"]) if own&.keys&.intersect?(%w[backfires pointless holds])

        (plant && leaves_pieces?(plant) && @data["kill_leaving_pieces"]) || @data["kill"]
      end

      # What it takes: minutes for each of `per` (:plant, :stem, :m2 or :patch), one number or {size => minutes}; times
      # them, {low, high}, for a practised crew on good ground and a new one on bad; whose word it is.
      Task = Value.define(:per, :minutes, :range, :source, :least_h) do
        def by_size? = minutes.is_a?(Hash)

        # Minutes at a size, or at the next larger one that is told; at the widest where it is not known.
        def at(size = nil)
          return minutes.to_f unless by_size?

          from = size ? SIZES.index(size) : SIZES.size
          (minutes.values_at(*SIZES.drop(from)).compact.first || minutes.values.last).to_f
        end
      end

      # The task on a plant: what lives like it may take another time, or be counted otherwise.
      def task(plant = nil)
        told = @data["effort"]
        own = plant && told.fetch("for", []).find { |one| fits?(plant, one.slice(*WAYS)) }
        told = told.merge(own) if own
        Task.new(per: told["per"].to_sym,
**told.slice("minutes", "range", "source", "least_h").transform_keys(&:to_sym))
      end

      # The method after which it comes, whose work it does not do itself: as the plant's file says, else its own; nil
      # for none.
      def follows(plant = nil) = (plant && told(plant)&.fetch("follows", nil)) || @data["follows"]

      private

      # How a plant may live that carries it.
      def ways = @data.fetch("carried_by", [])

      # Does what stays in the ground sprout? A seedling has nothing yet that would.
      def leaves_pieces?(plant)
        plant.is?(:root_suckers, :fragments_root) && !(plant.woody? && told(plant)&.fetch("sizes", nil) == ["seedling"])
      end

      # Is a plant of these forms and traits?
      def fits?(plant, asked)
        form, traits = plant.form.to_s, plant.traits.map(&:to_s)
        tests = { "forms" => ->(forms) { forms.include?(form) }, "not_forms" => ->(forms) { !forms.include?(form) },
                  "any" => ->(any) { any.intersect?(traits) }, "all" => ->(all) { (all - traits).empty? },
                  "none" => ->(none) { !none.intersect?(traits) } }
        tests.all? { |key, holds| asked[key].nil? || holds.call(asked[key]) }
      end
    end
  end
end
