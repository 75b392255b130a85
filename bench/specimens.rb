# frozen_string_literal: true

module Thistle
  # Volunteers who look at random specimens: each plant drawn from its own mixture in a random month in which it
  # stands, each look misread at the error that the library states, answering only what is suggested.
  class Specimens
    LOOKS = 12
    STANDS = 0.5 # of full sight, from which a day shows a plant
    SHARE = 0.03 # of a day's specimens, from which an aspect is met
    Aspects = Core::Identify::Mixture
    # Plants as they mostly meet a scout. of: which; only: in what aspects; when: on what days.
    KINDS = {
      "rosettes" => { of: ->(plant) { plant.characters.dig("rosette", "flat") }, only: %w[young] },
      "young plants" => { of: ->(plant) { plant.woody? && plant.form != :vine }, only: %w[young] },
      "seedlings" => { of: ->(plant) { plant.is?(:seeds) && !plant.aquatic? }, only: %w[seedling] },
      "shoots" => { of: ->(plant) { plant.is?(:perennial) && !plant.aquatic? }, only: %w[sprouting] },
      "dead stems" => { of: ->(plant) { %i[herb grass].include?(plant.form) }, only: %w[dead] },
      "winter twigs" => { of: ->(plant) { plant.woody? && !plant.is?(:evergreen) }, only: %w[grown], bare: true }
    }.freeze
    Walk = Struct.new(:plant, :lead, :looks, :key, keyword_init: true) do
      def settled? = key.settlement.settled?
      def named = key.top.plant
      def right? = named == plant
    end

    # site: where it is always looked; knowledge: what the volunteers' library knows.
    def initialize(site:, random: Random.new(1), knowledge: Core::Knowledge.shipped)
      @site, @random, @knowledge = site, random, knowledge
      @priors, @keys = {}, {}
    end

    # One volunteer before one specimen, until the name is settled or LOOKS are used up; nil where no day shows one.
    # lead: looks after which the right plant was first for good. kind: of KINDS, or nil for any.
    def walk(plant, kind = nil)
      key, specimen = start(plant, KINDS[kind])
      return unless key

      firsts = [key.top.plant]
      while key.observed.size < LOOKS && !key.settlement.settled? && (look = key.next_look)
        answer = answer(specimen, look.character)
        key = follow(key, look.character.key, answer)
        firsts << key.top.plant if answer
      end
      run = firsts.reverse.take_while { |first| first == plant }.size
      Walk.new(plant:, key:, looks: key.observed.size, lead: run.zero? ? nil : firsts.size - run)
    end

    private

    # [a key without answers, a specimen] of a day on which such a one stands.
    def start(plant, kind)
      mixtures = (0..11).map { |n| @site.today >> n }.shuffle(random: @random).lazy.map { |day| mixture(plant, day) }
      day, mixture = mixtures.find { |_, mixture| met?(mixture, kind) }
      return unless day

      region = plant.regions.values_at("invasive", "native").compact.flatten.sample(random: @random)
      specimen = Core::Identify::Specimen.new(mixture, Core::Knowledge.shipped.aspects, @random,
                                              only: kind&.fetch(:only))
      [empty(day, region), specimen]
    end

    def mixture(plant, day) = [day, Aspects.new(plant, @site.calendar(plant), day)]

    def met?(mixture, kind)
      return mixture.standing >= STANDS unless kind

      kind[:only].sum { |aspect| mixture.shares.fetch(aspect) } >= SHARE &&
        (!kind[:bare] || mixture.visible(Core::Knowledge.shipped.aspects.fetch("grown"))["leaf"] < 0.2)
    end

    def empty(date, region)
      @keys[[date, region]] ||= Core::Identify::Key.new({}, site: @site, date:, region:, knowledge: @knowledge,
                                                        prior: prior(date, region))
    end

    # The next key; many volunteers share their first answers, so that keys are kept.
    def follow(key, character, answer)
      @keys.shift if @keys.size > 4000
      @keys[[key, character, answer]] ||= answer ? plus(key, character, answer) : skip(key, character)
    end

    def prior(date, region)
      @priors[[date, region]] ||= Core::Identify::Prior.new(chances: Core::Identify::Chances.of(@knowledge),
                                                            site: @site, date:, region:)
    end

    # What the volunteer says; nil for can't tell: nothing to see now, no such part, or not known of this plant.
    def answer(specimen, character)
      shown = specimen.answer(character, @random) or return
      return shown unless @random.rand < character.error

      character.answer_in(character.states.keys.sample(random: @random))
    end

    def plus(key, character, answer)
      beside(key, key.observed.merge(character => answer), skipped: key.skipped)
    end

    def skip(key, character) = beside(key, key.observed, skipped: key.skipped + [character])

    def beside(key, observed, skipped:)
      Core::Identify::Key.new(observed, site: key.site, date: key.date, region: key.region, knowledge: @knowledge,
                                        prior: key.prior, skipped:)
    end
  end
end
