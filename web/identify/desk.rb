# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      # Reads what was seen from the address: c[CHARACTER]=STATE (a number for a measured one, "unknown" for can't
      # tell), not[CHARACTER][]=STATE. Numbers are in the units that `in` names. `on` is the day it was seen and `where`
      # the region, so that last autumn's photographs can be keyed; both are those of the property today where nothing
      # is said.
      class Desk
        INCH = { "cm" => 2.54, "mm" => 25.4, "count" => 1.0 }.freeze

        BACK, AHEAD = 10, 1 # years in which a plant can have been seen, or is looked forward to
        ANYWHERE = "any"
        HERE, DRAWN = 6, 3 # plants that are shown on arrival, and drawings of each
        WHY = ["mapped here", "watched for here", nil].freeze
        # drawn: {character => state} of what tells it, of what can be seen that day.
        Here = Core::Value.define(:plant, :why, :drawn) do
          # Whose word the drawings are: keys of knowledge/sources.yml.
          def sources = drawn.keys.map { |character| plant.character_source(character.key) }.uniq
        end

        attr_reader :key, :errors, :date, :region

        # property: whose site and region count.
        def initialize(params, property, today)
          @params, @property, @today = params, property, today
          @us = params.fetch("in", property.units) == "us"
          @errors = {}
          @date, @region = seen_on, seen_in
          @key = Core::Identify::Key.new(observed, site:, date:, region:, absent:, skipped:, prior:)
        end

        # The year of the property, or of the middle of another region by its broad weather.
        def site = @site ||= elsewhere? ? abroad : @property.site(@today)
        def elsewhere? = !region.nil? && region != @property.region
        def another_day? = date != @today

        # What was typed for the day or chosen for the region, as it was; nil for nothing.
        def typed(field) = @params[field].is_a?(String) && !@params[field].empty? ? @params[field] : nil

        # What was typed or chosen for a character, as it was.
        def chosen(character) = given("c")[character]
        def ruled_out?(character, state) = absent.fetch(character, []).include?(state)

        # The unit that a measured character is typed in, and an SI answer in it.
        def unit(character)
          return "" if character.unit == "count"

          @us ? "in" : character.unit
        end

        # A number in words: "7.5 cm", "3 in".
        def say(character, answer)
          return character.say(answer) unless character.measured?

          number = @us ? (answer.to_f / INCH.fetch(character.unit)).round(2) : answer.to_f.round(2)
          "#{number.to_s.delete_suffix(".0")} #{unit(character)}".strip
        end

        # The next look, its characters still open by group, and what was answered.
        def next_look = key.next_look

        # What matters here on that day, while nothing is chosen: [Here], what is mapped first, then what is watched
        # for, then other weeds that can be seen, the likeliest first.
        def here
          @here ||= begin
            mapped = @property.live_patches.unordered.exclude(plant_key: nil).distinct.select_map(:plant_key)
            ranked = weeds.sort_by { |plant| [standing(plant, mapped), -key.probability(plant), plant.name] }
            ranked.first(HERE).map { |plant| Here.new(plant:, why: WHY[standing(plant, mapped)], drawn: drawn(plant)) }
          end
        end

        # {group => [Look]}, best first, the next look left out.
        def groups = @groups ||= key.looks.drop(1).group_by { |look| look.character.group }

        # The address without one character's answer.
        def without(character)
          query = @params.slice("patch", "in", "on", "where")
                         .merge("c" => given("c").except(character), "not" => given("not").except(character))
          "/identify?#{Rack::Utils.build_nested_query(query.reject { |_, value| value.nil? || value.empty? })}"
        end

        # Hidden fields that carry what was seen: [[name, value]].
        def fields
          seen = given("c").map { |key, answer| ["c[#{key}]", answer] }
          not_there = absent.flat_map { |key, states| states.map { |state| ["not[#{key}][]", state] } }
          when_where = %w[on where].filter_map { |field| [field, typed(field)] if typed(field) }
          [*seen, *not_there, *when_where, ["in", @us ? "us" : "metric"]]
        end

        private

        def given(name) = @params[name].is_a?(Hash) ? @params[name].reject { |_, v| v.nil? || v.empty? } : {}

        def observed
          said = given("c").select { |_, answer| answer.is_a?(String) && answer != "unknown" }
          @observed ||= said.filter_map { |key, answer| read(key, answer.strip) }.to_h
        end

        def skipped = given("c").select { |_, v| v == "unknown" }.keys

        def absent
          @absent ||= given("not").select { |_, v| v.is_a?(Array) }
                                  .transform_values { |states| states.grep(String) }.except(*observed.keys)
        end

        # [key, answer in SI], or nil with an error beside the field.
        def read(key, typed)
          character = Core::Knowledge.shipped.characters[key]
          return [key, typed] unless character&.measured?

          number = Core::Decimal.read(typed, comma: :decimal)
          raise Core::BadInput.new("“#{typed}” is not a number.", field: key) unless number

          answer = (@us ? number * INCH.fetch(character.unit) : number).to_s
          character.state_of(answer)
          [key, answer]
        rescue Core::BadInput => e
          @errors[key] = e.message
          nil
        end

        def prior
          Core::Kept::ANSWERS.fetch([:prior, site, date, region]) do
            Core::Identify::Prior.new(chances: Core::Identify::Chances.of(Core::Knowledge.shipped), site:, date:,
                                      region:)
          end
        end

        # Of the region that is asked for.
        def weeds
          region ? Core::Knowledge.shipped.plants.values.select { |plant| plant.weed_in?(region) } : @property.weeds
        end

        def standing(plant, mapped)
          return 2 if elsewhere?
          return 0 if mapped.include?(plant.key)

          @property.watched?(plant) ? 1 : 2
        end

        def drawn(plant)
          askable = key.looks.map(&:character).reject(&:measured?)
          askable.filter_map { |one| plant.characters[one.key] && [one, plant.characters[one.key].keys.first] }
                 .first(DRAWN).to_h
        end

        def seen_on
          text = typed("on") or return @today
          day = Date.iso8601(text)
          return day if day.between?(@today << (12 * BACK), @today >> (12 * AHEAD))

          @errors["on"] = "A day of the last ten years, or of the one to come."
          @today
        rescue ArgumentError # a text that is far too long, too
          @errors["on"] = "That is not a date."
          @today
        end

        def seen_in
          text = typed("where") or return @property.region
          return if text == ANYWHERE
          return text if Core::Knowledge.shipped.region_names.key?(text)

          @errors["where"] = "Choose a region of the list."
          @property.region
        end

        def abroad
          Core::Kept::ANSWERS.fetch([:abroad, region, @today]) do
            latitude, longitude = Core::Season::BroadWeather.middle(region:)
            climate = JSON.generate(Core::Season::BroadWeather.climate(latitude, region:))
            ground = Store::Property.new(feed: "broad", station_seed: 1, climate:)
            Core::Season::Site.new(feed: Store::Property.feed.call(ground), latitude:, longitude:, texture: "loam",
                                   today: @today)
          end
        end
      end
    end
  end
end
