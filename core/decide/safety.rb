# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What can hurt, who may do it, what to wear, what to ask for, and where the material goes, for one method at a patch.
      class Safety
        Line = Value.define(:text, :source)
        HOT, COLD, STORMY = 30.0, 5.0, 40.0 # °C, °C, km/h of a day (memory)
        WHO = { herbicide: "Whoever the law where you work allows to apply herbicide; volunteers without a licence do not, unless it says so.",
                burning: "A trained burn boss and crew.",
                machine: "A trained operator; everyone else stays out of the machine’s reach." }.freeze
        WATCHED = %w[rare_plants wetland archaeological].freeze
        PILE = "A pile on site: three of the largest logs side by side, a tight second layer across them, gaps closed with sticks; " \
               "no plant touches the ground; no higher than {length:1.4}."

        # situation: a Decide::Situation of the day.
        def initialize(situation, removal, knowledge: Knowledge.shipped)
          @now, @removal, @knowledge = situation, removal, knowledge
          @plant = situation.plant
        end

        # Of method and plant, of the ground, of the weather.
        def hazards
          keys = (@removal.cautions | @plant.hazards).map { |key| line(@knowledge.cautions.fetch(key)) }
          (keys + ground + weather).uniq
        end

        def dress
          basic = [line(@knowledge.cautions.fetch("dress"))]
          basic << line(@knowledge.cautions.fetch("full_cover")) if @plant.hazards.intersect?(%w[burning_sap rash])
          basic
        end

        # Who may do it.
        def who
          told = WHO.find { |kind, _| kind == :herbicide ? @removal.herbicide? : @removal.is?(kind) }
          return [say(told.last)] if told

          people = [say(@removal.crew > 1 ? "At least #{@removal.crew} people, never one alone." : "Anyone who was briefed.")]
          people << say("People trained against its sap, fully covered.") if @plant.hazards.include?("burning_sap")
          people
        end

        # What to ask about before anyone begins. Local codes decide whether it is needed.
        def permits
          found = []
          found << "Herbicide near water: the permit, and a product labelled for it" if @removal.herbicide? && @now.near_water?
          found << "Work in water: the permit for it, and notice to boats" if @removal.is?(:aquatic)
          found << "Burning: the burn permit and notice to the fire service" if @removal.is?(:burning)
          found << "Digging: buried lines located" if @removal.is?(:digging, :levering, :severing)
          found << "Machines: nests and protected species checked" if @removal.is?(:machine)
          found << "Plants that must be reported: whether they may be moved at all" if @now.new_here
          found << "Rare plants, wetland or old ground near: whoever watches over it" if (@now.zones || []).map(&:kind).intersect?(WATCHED)
          found.map { |text| say("#{text}.") }
        end

        # Where the material goes, by what can live on in it.
        def disposal
          lines = [line(@knowledge.disposal.fetch(disposal_key))]
          lines << say("The school here hauls clean brush away instead of piling it.") if hauls?
          lines << say("Bare woody tops, once seed and fruit are bagged, go with the brush.") if moves? && carries_seed? && @plant.woody?
          lines
        end

        # The same as a key of knowledge/disposal.yml.
        def disposal_key
          return "leave_standing" unless moves?

          carries_seed? ? @plant.disposal.fetch("seeding", "bag_and_landfill") : @plant.disposal.fetch("clean", "dry_off_ground")
        end

        # What must never go on a pile or into compost; nil where clean loads may.
        def never
          why = []
          why << "seed, or flowers that still ripen it" if carries_seed?
          why << "pieces that root" if @plant.is?(:fragments_root, :layers)
          return if why.empty?

          say("Never on a pile, never into compost: #{why.join(" and ")}.")
        end

        # How a pile is built, where clean brush goes on one.
        def pile
          return unless @plant.woody? && @removal.removes? && !hauls? && @plant.disposal["clean"] == "brush_pile"

          say(PILE)
        end

        private

        def carries_seed?
          %i[green_seed ripe_seed].include?(@now.stage) || (@now.stage == :flower && @plant.disposal["bag_in_flower"])
        end

        # Does anything leave its place?
        def moves? = @removal.removes? || @removal.is?(:seed_stop, :freeing)
        def hauls? = @now.school(:piles) == "haul" && @plant.disposal["clean"] == "brush_pile" && @removal.removes?

        def ground
          [("Steep ground: nobody works above another, and nothing is rolled down." if @now.slope == "steep"),
           ("At the water: nobody alone, and a way out." if @now.in_water? && !@removal.is?(:aquatic)),
           ("Under power lines: no tall poles, no burning." if @now.zones&.any? { |zone| zone.kind == "utility" })].compact.map { |text| say(text) }
        end

        def weather
          day = @now.day or return []
          [("Hot, up to {temperature:#{day.tmax.round}}: water, shade, short turns." if day.tmax > HOT),
           ("Cold, from {temperature:#{day.tmin.round}}: warm clothes, dry gloves." if day.tmin < COLD),
           ("Windy: nobody under dead wood." if day.wind && day.wind > STORMY)].compact.map { |text| say(text) }
        end

        def line(row) = Line.new(text: row["text"], source: row["source"])
        def say(text) = Line.new(text:, source: "common_practice")
      end
    end
  end
end
