# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      # The trainer at one person's hand: the card in their session, dealt anew when it was answered.
      class PracticeDesk
        KINDS = { "name" => "What is it?", "method" => "What would you do?" }.freeze
        SEEDS = 1 << 30

        attr_reader :kind, :person, :answer

        # At the hand of the person in the session; someone who gave no name is "me".
        def self.of(session, params, property, today)
          person = session[:person].to_s.empty? ? "me" : session[:person]
          new(person:, kind: params["kind"], card: session[:card], property:, today:, answer: params["answer"])
        end

        # card: what the session holds of the card on the table: kind, plant, seed; nil deals one.
        def initialize(person:, kind:, card:, property:, today:, answer: nil)
          @person, @property, @today, @answer = person, property, today, answer
          @kind = KINDS.key?(kind) ? kind : card&.fetch("kind", nil) || "name"
          @held = card if card && card["kind"] == @kind
        end

        # What the session has to hold.
        def held = @held ||= { "kind" => kind, "plant" => deal.key, "seed" => Random.rand(SEEDS) }

        def plant = Core::Knowledge.shipped.plant(held["plant"])
        def site = @property.site(@today)

        def card
          @card ||= Core::Identify::Card.new(plant, seed: held["seed"], site:, rivals: practice.rivals(plant).first(2))
        end

        def question = @question ||= Core::Decide::Question.new(plant, seed: held["seed"], site:)

        def practice
          @practice ||= Core::Identify::Practice.new(Store::Practised.of(person, kind), plants: pool, today: @today)
        end

        # What may be answered: {key => words}.
        def options = (kind == "name" ? card.names : question.removals).to_h { |one| [one.key, one.name] }
        def right? = kind == "name" ? answer == plant.key : question.right?(answer)

        # Keeps the answer under the person's name. A right method counts as the plant itself: nothing was mixed up.
        def keep
          raise Core::BadInput.new("Choose an answer.", field: :answer) unless options.key?(answer)

          kept = kind == "method" && right? ? plant.key : answer
          Store::Practised.create(person:, kind:, plant_key: plant.key, answer_key: kept, on: @today)
          @practice = nil # what was just answered counts
        end

        private

        def deal = practice.next_plant(Random.new)

        # Plants of the region that show something today; for methods, invaders only.
        def pool
          plants = Core::Knowledge.shipped.plants.values
          plants = plants.select { |one| one.grows_in?(@property.region) } if @property.region
          return plants.select { |one| @property.weed?(one) && one.removals.any? } if kind == "method"

          calendar = ->(one) { Core::Season::Phenology.new(one, site).phases_on(@today) }
          plants.select { |one| one.is?(:woody, :evergreen) || calendar.call(one).any? }
        end
      end
    end
  end
end
