# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What the hours of a day ask of bodies: what the worst of them feels like, how much is drunk, how long one works
      # and rests. Each may be typed over by who stands there with an instrument.
      class Bodies
        # Litres a person drinks in an hour, from °C felt on; not more than MOST (NIOSH, recalled).
        DRINK, COOL, MOST = { 32.2 => 1.0, 26.7 => 0.7 }.freeze, 0.4, 1.4
        # Minutes of work and of rest in an hour of moderate work, from °C WBGT on (NIOSH and ACGIH, recalled).
        WORK_REST = { 31.0 => [15, 45], 29.0 => [30, 30], 28.0 => [45, 15] }.freeze
        TYPED = %i[felt wbgt drink].freeze

        # hours: [Season::Hours::Now] of the day; told: {felt:, wbgt: (°C), drink: (L an hour)}, what somebody typed.
        def initialize(hours, told = {})
          @hours, @told = hours, told.compact
        end

        # °C of the hour that feels worst; nil where none is hot or cold, or none is known.
        def felt = typed(:felt) { worst&.first }

        # What is said of that; nil where nothing has to be.
        def said = felt && Exposure.said(felt)

        # °C; nil where warmth or damp are not known.
        def wbgt = typed(:wbgt) { known.map { |now| Exposure.wbgt(now.temperature, now.humidity) }.max }

        # Litres a person drinks in an hour of the day; nil where nothing is known of it.
        def drink
          typed(:drink) { warmest && (DRINK.find { |from, _| warmest >= from }&.last || COOL) }
        end

        # Litres to bring for so many people and hours; as for a cool day where nothing is known: it is said that way.
        def litres(people, hours) = people * hours * (drink || COOL)

        # [minutes of work, minutes of rest] in each hour; nil where nobody needs them.
        def work_rest = wbgt && WORK_REST.find { |from, _| wbgt >= from }&.last

        # Was it typed?
        def typed?(what) = @told.key?(what)
        def known? = !warmest.nil?

        private

        def typed(what, &) = @told.fetch(what, &)
        def known = @hours.select { |now| now.temperature && now.humidity }

        def worst
          said = @hours.filter_map { |now| Exposure.caution(now.temperature, now.humidity, now.wind) }
          said.max_by { |felt, _| (felt - 15).abs }
        end

        # °C that the warmest hour feels like.
        def warmest
          return @told[:felt] if @told.key?(:felt)

          @hours.filter_map { |now| now.temperature && feels(now) }.max
        end

        def feels(now) = now.humidity ? Exposure.heat_index(now.temperature, now.humidity) : now.temperature
      end
    end
  end
end
