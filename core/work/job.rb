# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Work on a patch by a method that a day may hold. hours: person-hours, likely; score: what finishing it is worth;
      # least, most: people at it at once; needs: [Need]; cannot: keys that keep somebody off it; tools: {key of kit.yml
      # => people who share one}; fit: [[from, to]] hours of the day's clock in which it may be done; walk_h: hours from
      # the meeting place to it; at: [m east, m north] of there; late: plants in seed, after the clean ground; parts: of
      # a round (Rounds), the small jobs that it holds.
      Job = Value.define(:id, :method, :hours, :score, :least, :most, :needs, :cannot, :tools, :fit, :walk_h, :late,
                         :at, :parts) do
        # Hours of a block that can be worked on it, less those that go into getting there.
        def worked(from, to, away)
          open = fit.sum { |start, finish| [[to, finish].min - [from, start].max, 0.0].max }
          [open - away, 0.0].max
        end

        # The jobs of a round, or itself.
        def each_part = parts || [self]

        # May someone work on it?
        def takes?(person) = !person.cannot?(cannot.to_a)
      end

      # What a method asks of one of those who do it.
      class Job
        # key: :licensed, or roles and trainings of which any will do; text: of it.
        Need = Value.define(:key, :text) do
          def met?(person, date) = key == :licensed ? person.licensed?(date) : person.any?(key)
        end

        # What knowledge/crew.yml asks for a method on stems of a size, nil where nobody knows it: [Need].
        def self.needs(removal, size: nil, crew: Knowledge.shipped.crew)
          found = crew["needs"].select do |one|
            removal.is?(*one["tags"].map(&:to_sym)) && (one["sizes"].nil? || one["sizes"].include?(size))
          end.first(1)
          found = found.map { |one| Need.new(key: one["any"], text: one["text"]) }
          removal.herbicide? ? [Need.new(key: :licensed, text: "a licensed applicator"), *found] : found
        end
      end
    end
  end
end
