# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Hazards, who may do it, what to wear, what to ask for, and where the material goes, for one method at a
      # patch.
      class Safety
        Line = Value.define(:text, :source)
        HOT, COLD, STORMY = 30.0, 5.0, 40.0 # °C, °C, km/h of a day (memory)
        WHO = { herbicide: "Only people whom the law here allows to apply herbicide. Volunteers who are not licensed " \
                           "may not, unless the law says so.",
                burning: "A trained burn boss and crew.",
                machine: "A trained operator; everyone else stays out of the machine’s reach." }.freeze
        FIELD = %w[field].freeze # what waits for everybody out there
        WATCHED = %w[rare_plants wetland archaeological].freeze
        PILE = "A pile on site: three of the largest logs side by side, a tight second layer across them, gaps " \
               "closed with sticks; no plant touches the ground; no higher than {length:1.4}, away from trails and " \
               "water, and tried by standing on it. Bare brush only."

        # situation: a Decide::Situation of the day.
        def initialize(situation, removal, knowledge: Knowledge.shipped)
          @now, @removal, @knowledge = situation, removal, knowledge
          @plant = situation.plant
        end

        # Of method and plant, of the ground, of the weather.
        def hazards
          keys = (@removal.cautions | @plant.hazards | FIELD).map { |key| line(@knowledge.cautions.fetch(key)) }
          if @removal.is?(:pulling, :digging, :rolling) && @plant.is?(:tussock)
            keys << line(@knowledge.cautions.fetch("snakes"))
          end
          (keys + ground + weather).uniq
        end

        # [Line]: what everyone wears, and full cover against sap that burns.
        def dress
          basic = [line(@knowledge.cautions.fetch(@removal.is?(:aquatic) ? "dress_water" : "dress"))]
          basic << line(@knowledge.cautions.fetch("full_cover")) if @plant.hazards.intersect?(%w[burning_sap rash])
          basic
        end

        # Does a label say what else is worn?
        def by_label? = @removal.herbicide?

        # Who may do it.
        def who
          told = WHO.find { |kind, _| kind == :herbicide ? @removal.herbicide? : @removal.is?(kind) }
          return [say(told.last)] if told

          people = [say(@removal.crew > 1 ? "At least #{@removal.crew} people, " \
            "never one alone." : "Anyone who was briefed.")]
          people << say("People trained against its sap, fully covered.") if @plant.hazards.include?("burning_sap")
          people
        end

        # What to ask about before anyone begins. Local codes decide whether it is needed.
        def permits
          found = []
          if @removal.herbicide? && @now.near_water?
            found << "Herbicide near water: the permit, and a product whose label allows it"
          end
          found << "Work in water: the permit for it, and notice to boats" if @removal.is?(:aquatic)
          found << "Burning: the burn permit and notice to the fire service" if @removal.is?(:burning)
          found << "Digging: buried lines located" if @removal.is?(:digging, :levering, :severing)
          found << "Machines: nests and protected species checked" if @removal.is?(:machine)
          found << "Plants that must be reported: whether they may be moved at all" if @now.new_here
          if (@now.zones || []).map(&:kind).intersect?(WATCHED)
            found << "Rare plants, wetland or old ground near: whoever watches over it"
          end
          found.map { |text| say("#{text}.") }
        end

        # Where the material goes: the parts that go to one place, in one line.
        def disposal
          lines = waste.parts.group_by(&:text).map { |text, parts| say("#{labels(parts)}: #{text}") }
          lines << say("The school here hauls clean brush away instead of piling it.") if waste.hauls?
          lines
        end

        # Where most of it goes, as a key of knowledge/disposal.yml.
        def disposal_key = waste.key

        # What must never go on a pile or into compost; nil where a pile is built, since each part says where it goes.
        def never
          parts = waste.never
          say("Never on a pile, never into compost: #{labels(parts).downcase}.") if parts.any? && pile.nil?
        end

        # How a pile is built, where bare brush goes on one.
        def pile = (say(PILE) if waste.pile?)

        private

        def labels(parts) = parts.map { |part| part.label.downcase }.join("; ").capitalize
        def waste = @waste ||= Waste.new(@now, @removal, knowledge: @knowledge)

        def ground
          lines = @now.zones&.any? { |zone| zone.kind == "utility" }
          [("Steep ground: nobody works above another, and nothing is rolled down." if @now.slope == "steep"),
           ("At the water: nobody alone, and a way out." if @now.in_water? && !@removal.is?(:aquatic)),
           ("Under power lines: no tall poles, no burning." if lines)].compact.map { |text| say(text) }
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
