# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # A list of invaders by law (knowledge/laws.yml); country: a name or several; parts: of it, nil for all.
      Law = Value.define(:key, :label, :country, :parts, :report, :control, :move, :source) do
        # Does it hold in a country and a part of it?
        def in?(country, part) = Array(self.country).include?(country) && (parts.nil? || parts.include?(part))

        # What it asks of a plant: keys of DUTIES.
        def asks(key) = Law::DUTIES.keys.select { |duty| self[duty]&.include?(key) }
      end

      # What may be asked.
      class Law
        DUTIES = { report: "it is reported before anything else is done",
                   control: "whoever has the ground keeps it down or ends it",
                   move: "it may not be moved, sold, planted or let out" }.freeze
        # What is asked of one plant on one land, and by whom it is said: a list's label, or the steward.
        Duty = Value.define(:asked, :by, :source)

        # [Duty] of a plant in a country, by every list that holds there.
        def self.duties(key, country, part)
          Knowledge.shipped.laws.values.select { |law| law.in?(country, part) }.flat_map do |law|
            law.asks(key).map { |asked| Duty.new(asked:, by: law.label, source: law.source) }
          end
        end
      end
    end
  end
end
