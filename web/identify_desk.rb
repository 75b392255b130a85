# frozen_string_literal: true

module Thistle
  module Web
    # Reads what was seen from the address: c[CHARACTER]=STATE (a number for a measured one, "unknown" for can't tell),
    # not[CHARACTER][]=STATE. Numbers are in the units that `in` names.
    class IdentifyDesk
      INCH = { "cm" => 2.54, "mm" => 25.4, "count" => 1.0 }.freeze

      attr_reader :key, :errors

      # property: whose site and region count.
      def initialize(params, property, today)
        @params, @property, @today = params, property, today
        @us = params.fetch("in", property.units) == "us"
        @errors = {}
        @key = Core::Identify::Key.new(observed, site:, date: today, region: property.region, absent:, skipped:, prior:)
      end

      def site = @property.site(@today)

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

      # {group => [Look]}, best first, the next look left out.
      def groups = @groups ||= key.looks.drop(1).group_by { |look| look.character.group }

      # The address without one character's answer.
      def without(character)
        query = @params.slice("patch", "in").merge("c" => given("c").except(character), "not" => given("not").except(character))
        "/identify?#{Rack::Utils.build_nested_query(query.reject { |_, value| value.nil? || value.empty? })}"
      end

      # Hidden fields that carry what was seen: [[name, value]].
      def fields
        given("c").map { |k, v| ["c[#{k}]", v] } + absent.flat_map { |k, states| states.map { |s| ["not[#{k}][]", s] } } +
          [["in", @us ? "us" : "metric"]]
      end

      private

      def given(name) = @params[name].is_a?(Hash) ? @params[name].reject { |_, v| v.nil? || v.empty? } : {}

      def observed
        @observed ||= given("c").select { |_, v| v.is_a?(String) && v != "unknown" }.filter_map { |k, v| read(k, v.strip) }.to_h
      end

      def skipped = given("c").select { |_, v| v == "unknown" }.keys

      def absent
        @absent ||= given("not").select { |_, v| v.is_a?(Array) }.transform_values { |states| states.grep(String) }.except(*observed.keys)
      end

      # [key, answer in SI], or nil with an error beside the field.
      def read(key, typed)
        character = Core::Knowledge.shipped.characters[key]
        return [key, typed] unless character&.measured?

        number = Float(typed.tr(",", "."), exception: false) or raise Core::BadInput.new("“#{typed}” is not a number.", field: key)
        answer = (@us ? number * INCH.fetch(character.unit) : number).to_s
        character.state_of(answer)
        [key, answer]
      rescue Core::BadInput => e
        @errors[key] = e.message
        nil
      end

      def prior
        Page::KEPT.fetch([:prior, site, @today, @property.region]) do
          Core::Identify::Prior.new(chances: Core::Identify::Chances.of(Core::Knowledge.shipped), site:, date: @today, region: @property.region)
        end
      end
    end
  end
end
