# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # Reads what was chosen on the decide bench over what the patch and the property say.
      # The address holds everything; a choice that is not there comes from the record.
      class Desk
        YES_NO = %w[licensed natives_near aquatic_label settled reported new_planting burn_permit fire_adapted
                    full_cover clean_site].freeze
        CREW = 0..200
        WIDEST_CM = 400
        FAR = "How far the water is: a number, 0 for in it."
        IMAGINED = 20 # plants, where nobody says

        attr_reader :facts, :errors, :patch, :diameter

        def initialize(params, patch, property, today, units)
          @params, @patch, @property, @units = params, patch, property, units
          @today, @errors = today, {}
          @facts = pinned(base(today))
        end

        def site = @property.site(@today)
        def bench = @bench ||= Core::Decide::Bench.new(facts, site)
        def changes = @changes ||= Core::Decide::Changes.new(bench)
        def unknowns = @unknowns ||= Core::Decide::Unknowns.new(bench).asked

        # Did somebody type other numbers than those that the patch's records come to?
        def own_count? = @own_count || false

        # What the records come to (Store::PatchStanding::There); nil without a patch that has a name.
        def there = @there ||= @patch&.history&.there(facts.date)

        # What is asked of amounts, {field => [label, unit or nil, what is there]}.
        def amounts
          asked = { "plants" => ["How many plants", nil, facts.plants] }
          asked["stems"] = ["Stems on these plants", nil, facts.stems] if facts.plant.woody?
          asked["seedlings"] = ["Seedlings beside", nil, facts.seedlings] if @patch
          asked["area"] =
            [@patch ? "How much ground" : "On", @units.unit(:area), @units.from_si(:area, facts.area_m2)&.round]
          asked["cover"] = ["Of which it covers", "%", facts.cover&.round]
          return asked if @patch

          { **asked, "water" => ["Water at", @units.unit(:length), @units.from_si(:length, facts.water_m)&.round] }
        end

        def contradictions
          chosen = given("size", Core::Removal::SIZES)
          @contradictions ||= Core::Decide::Contradictions.new(bench, diameter:, chosen:).all
        end

        def combination = @combination ||= Core::Decide::Combination.new(bench)
        def other_schools = @other_schools ||= Core::Decide::OtherSchools.new(bench).all
        def safety(removal) = Core::Decide::Safety.new(bench.situation, removal)

        # What is shown as chosen in a row of buttons.
        def shown
          now = bench.situation
          { "size" => facts.size, "stage" => now.stage.to_s, "soil" => now.soil.to_s, "stance" => facts.stance,
            "slope" => facts.slope,
            "footing" => facts.footing || "soil", "purpose" => facts.holding? ? "hold" : "kill",
            **YES_NO.to_h { |field| [field, yes_no(facts[field.to_sym])] },
            "aquatic_label" => yes_no(facts.for_water?) }
        end

        # Tools at hand, as keys of kit.yml; all of them where nobody said.
        def tools = facts.tools || Core::Knowledge.shipped.kit.keys
        def typed(field) = @params[field].is_a?(String) ? @params[field] : nil

        # Facts that only some plants ask about.
        def asks?(fact)
          plant = facts.plant
          { full_cover: plant.hazards.intersect?(%w[burning_sap rash]),
            burn_permit: bench.removals.any? { |r| r.is?(:burning) },
            clean_site: bench.removals.any? { |r| r.is?(:harvest) } }.fetch(fact)
        end

        private

        def base(today)
          from_patch = @patch&.facts(today)
          plant = given("plant", Core::Knowledge.shipped.plants) && Core::Knowledge.shipped.plant(@params["plant"])
          plant ||= from_patch&.plant || Core::Knowledge.shipped.plant("amur_honeysuckle")
          return from_patch.with(plant:, new_here: @property.reports_first?(plant)) if from_patch

          @property.facts(plant, today, settled: false, new_here: @property.reports_first?(plant),
                                        water_m: @patch&.water_m,
                                        size: "thumb", area_m2: 50.0)
        end

        def pinned(facts)
          changes = { date: date(facts.date), size:, stance: given("stance", Core::Decide::Facts::STANCES),
                      slope: given("slope", Core::Decide::Facts::SLOPES),
                      stage: given("stage", Core::Season::Phenology::STAGES)&.to_sym,
                      soil: given("soil", Core::Season::Soil::CLASSES)&.to_sym,
                      footing: given("footing", Core::Decide::Facts::FOOTINGS),
                      tools: ticked, crew:, schools: schools(facts), aim: given("aim", Core::Knowledge.shipped.aims),
                      purpose: given("purpose", Core::Decide::Facts::PURPOSES)&.to_sym }.compact
          changes.merge!(@patch ? recounted : imagined)
          YES_NO.each do |field|
            answer = given(field, %w[yes no])
            changes[field.to_sym] = answer == "yes" if answer
          end
          told = facts.with(**changes)
          few = @patch && !own_count? ? told.few : Core::Decide::Facts.few?(told.plants, told.stems)
          told.with(belongs: told.plant.belongs(@property.region), few:)
        end

        # The size chosen, or that of a stem that was measured: the wider of the two.
        def size
          chosen = given("size", Core::Removal::SIZES)
          @diameter = measured
          return chosen unless @diameter

          sizes = Core::Removal::SIZES
          [chosen, Core::Decide::Contradictions.size_of(@diameter)].compact.max_by { |size| sizes.index(size) }
        end

        def measured
          text = given("stem_width", nil) or return
          number = Core::Decimal.read(text, comma: @units.comma)
          width = number && (@units.us? ? number * 2.54 : number)
          return width if width&.positive? && width <= WIDEST_CM

          @errors[:stem_width] = "A stem is wider than nothing and narrower than #{@units.us? ? "157 in" : "4 m"}; " \
                                 "type a number."
          nil
        end

        def crew
          text = given("crew", nil) or return
          return text.to_i if text.match?(/\A\d{1,3}\z/) && CREW.cover?(text.to_i)

          @errors[:crew] = "How many people: a whole number from 0 to 200."
          nil
        end

        # Stems, ground and water of a patch that is not on the map.
        def imagined
          told = amounts_typed
          { plants: told[:stems] ? nil : IMAGINED, **told,
            water_m: @units.to_si(:length, amount("water", FAR, least: 0)) }.compact
        end

        # What somebody says of a patch that is on the map goes before what was counted on it.
        def recounted
          told = amounts_typed
          @own_count = told.keys.intersect?(%i[plants stems seedlings])
          @own_count ? { **told, sizes: nil } : told
        end

        def amounts_typed
          { plants: amount("plants", "How many plants: a number above zero.")&.round,
            stems: amount("stems", "How many stems: a number above zero.")&.round,
            seedlings: amount("seedlings", "How many seedlings: a number, 0 for none.", least: 0)&.round,
            cover: amount("cover", "How much it covers: 1 to 100 %.", least: 1, most: 100),
            area_m2: @units.to_si(:area, amount("area", "How much ground: a number above zero.")) }.compact
        end

        def amount(field, complaint, least: Float::MIN, most: 1e7)
          text = given(field, nil) or return
          number = Core::Decimal.read(text, comma: @units.comma)
          return number if number&.between?(least, most)

          @errors[field.to_sym] = number ? complaint : Core::Decimal.complaint(text, complaint)
          nil
        end

        # What was ticked; an empty mark comes along so that none is none.
        def ticked
          given = @params["tools"]
          given.is_a?(Array) ? (given & Core::Knowledge.shipped.kit.keys).sort : nil
        end

        def schools(facts)
          given = @params["s"]
          return unless given.is_a?(Hash)

          Core::Decide::School.settle(given.transform_keys(&:to_sym).select { |_, option| option.is_a?(String) },
                                      facts.schools)
        end

        def given(field, known)
          value = @params[field].to_s
          return if value.empty?

          known.nil? || known.map { |k, _| k.to_s }.include?(value) ? value : nil
        end

        def date(today)
          return today unless given("date", nil)

          chosen = Date.iso8601(@params["date"].to_s)
          return chosen if (chosen - today).abs <= 366

          @errors[:date] = "Choose a date within a year of today."
          today
        rescue ArgumentError # a text that is far too long, too
          @errors[:date] = "That is not a date."
          today
        end

        def yes_no(value) = { true => "yes", false => "no", nil => nil }[value]
      end
    end
  end
end
