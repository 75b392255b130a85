# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Is the name settled? Only from 95 % on, with enough seen, a deciding character seen against every look-alike
      # that is not ruled out, and nothing seen that contradicts it.
      class Settlement
        ENOUGH = 5 # characters that must fit
        RULED_OUT = 0.001 # a look-alike below it needs no deciding character of its own
        Pair = Value.define(:plant, :by, :text, :source)
        Fight = Value.define(:character, :answer, :plant)

        attr_reader :plant

        def initialize(key)
          @key = key
          @top = key.top
          @plant = @top.plant
        end

        def settled? = reasons.empty?

        # Why it is not settled, in sentences; empty when it is.
        def reasons
          return ["Nothing seen yet."] if @key.observed.empty?

          @reasons ||= [likely_enough, enough_seen, *undecided, *contradicted].compact
        end

        # The Group that it is settled as, where which of its plants it is cannot be told; nil where it is settled as a
        # plant, or not at all. All of the group are weeds here, together they are as likely as a name must be, enough
        # was seen, and what is not decided yet is only which of them.
        def group
          return if settled? || @key.observed.empty?

          @key.knowledge.group_of(plant)&.then { |found| found if fits?(found) }
        end

        # The chance that it is one of a group.
        def probability_of(group) = group.plants.sum { |key| @key.probability(@key.knowledge.plant(key)) }

        # Pairs that the leading plant could be mistaken for.
        def pairs = @pairs ||= self.class.pairs(plant, @key.knowledge)

        # In the plant's own file, and in the files of the plants that name it.
        def self.pairs(plant, knowledge)
          own = plant.look_alikes.filter_map { |row| pair(knowledge.plants[row["plant"]], row) }
          named_by = knowledge.plants.values.flat_map do |other|
            other.look_alikes.filter_map { |row| pair(other, row) if row["plant"] == plant.key }
          end
          (own + named_by).uniq(&:plant)
        end

        def self.pair(plant, row) = plant && Pair.new(plant:, by: row["by"], text: row["text"], source: row["source"])
        private_class_method :pair

        # Characters that would decide and have not been seen.
        def missing = open_pairs.flat_map(&:by).uniq - @key.observed.keys

        # What to photograph while it is not settled, in words.
        def photographs
          keys = (missing + pairs.flat_map(&:by) + [@key.next_look&.character&.key]).compact.uniq - @key.observed.keys
          keys.map { |key| character(key).label.downcase }
        end

        # Answers that disagree: each one, and the plant that it speaks for among those it fits. Empty when they agree.
        def fights
          return [] if @top.against.empty?

          ours = @top.fits.map { |key| Fight.new(character: character(key), answer: @key.observed[key], plant:) }
          @top.against.filter_map { |key| fight(key) } + ours
        end

        private

        def fits?(group)
          group.weeds_in?(@key.region, @key.knowledge) && probability_of(group) >= Key::SETTLED_AT &&
            enough_seen.nil? && contradicted.nil? && open_pairs.all? { |pair| group.include?(pair.plant) }
        end

        def fight(key)
          fitting = @key.chances.plants.select { |other| @key.stand(other, key) == :fits }
          rival = fitting.max_by { |other| @key.probability(other) }
          rival && Fight.new(character: character(key), answer: @key.observed[key], plant: rival)
        end

        def likely_enough
          return if @top.probability >= Key::SETTLED_AT

          needed = (Key::SETTLED_AT * 100).to_i
          stands = [(@top.probability * 100).round, needed - 1].min # as the list says it, and never what is needed
          "#{plant.name} stands at #{stands} %; a name needs #{needed} %."
        end

        def enough_seen
          return if @top.fits.size >= ENOUGH

          "Only #{@top.fits.size} of at least #{ENOUGH} characters seen that fit."
        end

        # Look-alikes not yet told apart. One that is ruled out all but for certain no longer counts,
        # as long as something that decides has been seen at all.
        def open_pairs
          @open_pairs ||= begin
            open = pairs.reject { |pair| pair.by.intersect?(@top.fits) }
            decided = open.size < pairs.size
            decided ? open.reject { |pair| @key.probability(pair.plant) < RULED_OUT } : open
          end
        end

        def undecided
          open_pairs.first(3).map do |pair|
            "#{labels(pair.by)} tells it from #{pair.plant.name}, and has not been seen to fit."
          end
        end

        def contradicted
          against = @top.against
          return if against.empty?

          "#{labels(against, " and ")} #{against.one? ? "speaks" : "speak"} against #{plant.name}."
        end

        def labels(keys, join = " or ") = keys.map { |key| character(key).label }.join(join)
        def character(key) = @key.knowledge.characters.fetch(key)
      end
    end
  end
end
