# frozen_string_literal: true

module Thistle
  # Volunteers who look at random specimens: each plant drawn from the library's own frequencies in a random month
  # in which it stands, each look misread at the error that the library states, answering only what is suggested.
  class Specimens
    LOOKS = 12
    # Plants as they mostly meet a scout. of: which; shows: what can be seen besides what the day shows; when: on what
    # days; says: what such a specimen answers whatever the file's frequencies are.
    KINDS = {
      "rosettes" => { of: ->(plant) { plant.characters.dig("rosette", "flat") },
                      says: { "rosette" => "flat", "height" => :least },
                      when: ->(phases) { !phases.intersect?(%i[flower green_seed ripe_seed]) },
                      hides: ->(one) { one.group == "stem" || %w[flower fruit].include?(one.shows) } },
      "young plants" => { of: ->(plant) { plant.woody? && plant.form != :vine }, says: { "height" => :least },
                          when: ->(phases) { phases.include?(:leaf) },
                          hides: ->(one) { one.key == "bark" || %w[flower fruit].include?(one.shows) } },
      "winter twigs" => { of: ->(plant) { plant.woody? && !plant.is?(:evergreen) }, says: {}, when: :empty?.to_proc,
                          hides: ->(one) { %w[leaf flower fruit].include?(one.shows) } }
    }.freeze
    Walk = Struct.new(:plant, :lead, :looks, :key, keyword_init: true) do
      def settled? = key.settlement.settled?
      def named = key.top.plant
      def right? = named == plant
    end

    # site: where it is always looked; left_out: a plant that the library is not to know.
    def initialize(site:, random: Random.new(1), knowledge: Core::Knowledge.shipped)
      @site, @random, @knowledge = site, random, knowledge
      @priors, @keys = {}, {}
    end

    # One volunteer before one specimen, until the name is settled or LOOKS are used up; nil where no day shows one.
    # lead: looks after which the right plant was first for good. kind: of KINDS, or nil for any.
    def walk(plant, kind = nil)
      @kind = KINDS[kind]
      key = start(plant) or return
      @phases = key.prior.phases_of(plant)
      firsts = [key.top.plant]
      while key.observed.size < LOOKS && !key.settlement.settled? && (look = key.next_look)
        answer = answer(plant, look.character)
        key = follow(key, look.character.key, answer)
        firsts << key.top.plant if answer
      end
      run = firsts.reverse.take_while { |first| first == plant }.size
      Walk.new(plant:, key:, looks: key.observed.size, lead: run.zero? ? nil : firsts.size - run)
    end

    private

    def start(plant)
      dates = (0..11).map { |n| @site.today >> n }.shuffle(random: @random)
      region = plant.regions.values_at("invasive", "native").compact.flatten.sample(random: @random)
      date = dates.find { |day| standing?(plant, prior(day, region)) } or return
      @keys[[date, region]] ||= Core::Identify::Key.new({}, site: @site, date:, region:, knowledge: @knowledge,
                                                        prior: prior(date, region))
    end

    # The next key; many volunteers share their first answers, so that keys are kept.
    def follow(key, character, answer)
      @keys.shift if @keys.size > 4000
      @keys[[key, character, answer]] ||= answer ? key.plus(character, answer) : skip(key, character)
    end

    def standing?(plant, prior)
      phases = prior.phases_of(plant)
      @kind ? @kind[:when].call(phases) && (phases.any? || plant.woody?) : plant.is?(:woody, :evergreen) || phases.any?
    end

    def prior(date, region)
      @priors[[date, region]] ||= Core::Identify::Prior.new(chances: Core::Identify::Chances.of(@knowledge),
                                                            site: @site, date:, region:)
    end

    # What the volunteer says; nil for can't tell: nothing to see now, no such part, or not known of this plant.
    def answer(plant, character)
      return said(plant, character) if @kind && (@kind[:says].key?(character.key) || @kind[:hides].call(character))

      phases = Core::Identify::Prior::SHOWN_BY[character.shows]
      return if phases && !phases.intersect?(@phases)

      shown = character.draw(plant, @random) or return
      @random.rand < character.error ? character.answer_in(character.states.keys.sample(random: @random)) : shown
    end

    # What such a specimen shows by its kind; nil for what cannot be seen on it.
    def said(plant, character)
      answer = @kind[:says][character.key]
      answer == :least ? plant.characters.dig(character.key, "low")&.to_s : answer
    end

    def skip(key, character)
      Core::Identify::Key.new(key.observed, site: key.site, date: key.date, region: key.region, knowledge: @knowledge,
                                            prior: key.prior, skipped: key.skipped + [character])
    end
  end
end
