# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Is the name settled? Only above 95 %, with a deciding character seen against every look-alike,
      # and nothing seen that contradicts it.
      class Settlement
        attr_reader :reasons, :plant

        def initialize(key)
          @key = key
          @top = key.top
          @plant = @top.plant
          @reasons = key.observed.empty? ? ["Nothing seen yet."] : [likely_enough, *undecided, *contradicted].compact
        end

        def settled? = reasons.empty?

        # Pairs that the leading plant could be mistaken for: [other plant, characters that decide, text].
        def pairs = self.class.pairs(plant, @key.knowledge)

        def self.pairs(plant, knowledge)
          own = plant.look_alikes.map { |row| [knowledge.plant(row["plant"]), row["by"], row["text"], row["source"]] }
          named_by = knowledge.plants.values.flat_map do |other|
            other.look_alikes.select { |row| row["plant"] == plant.key }
                 .map { |row| [other, row["by"], row["text"], row["source"]] }
          end
          own + named_by
        end

        # What to photograph while it is not settled, in words.
        def photographs
          keys = (pairs.flat_map { |_, by, _| by } + [@key.next_look&.character&.key]).compact.uniq
          keys.map { |key| @key.knowledge.characters.fetch(key).label.downcase }
        end

        private

        def likely_enough
          return if @top.probability >= Key::SETTLED_AT

          "#{plant.name} stands at #{(@top.probability * 100).floor} %; a name needs #{(Key::SETTLED_AT * 100).to_i} %."
        end

        def undecided
          return few_looks if pairs.empty?

          pairs.reject { |_, by, _| by.intersect?(@top.fits) }.map do |other, by, _|
            "#{labels(by)} tells it from #{other.name}, and has not been looked at."
          end
        end

        def few_looks
          @top.fits.size < 3 ? ["Only #{@top.fits.size} of at least 3 characters seen."] : []
        end

        def contradicted
          return if @top.against.empty?

          "#{labels(@top.against)} speaks against #{plant.name}."
        end

        def labels(keys) = keys.map { |key| @key.knowledge.characters.fetch(key).label }.join(" or ")
      end
    end
  end
end
