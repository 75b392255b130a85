# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Who plants where: strips of a bed side by side, as many plants in each, from the back to the front so that
      # nobody walks over what stands; and what each person carries.
      class Carry
        # number of the person, from 1; from, to: m along the front; kinds: {number of a kind => how many}; loads:
        # {stock => {held:, carried:, in:}}; walks: to the bed and back.
        Strip = Value.define(:person, :from, :to, :count, :kinds, :loads, :walks)
        MOST = 60 # people

        # plants: [[x, y, kind]]; stocks: of each kind; front: bearing, or nil. Raises BadInput (field :people).
        def initialize(plants, stocks, people:, front: nil)
          unless people.is_a?(Integer) && people.between?(1, MOST)
            raise BadInput.new("People are 1 to #{MOST}.", field: :people)
          end

          @plants, @stocks, @people = plants, stocks, people
          angle = (front || 180) * Math::PI / 180
          @along = [Math.cos(angle), -Math.sin(angle)]
        end

        # [Strip]; fewer than the people where there is less to plant than hands.
        def strips
          sorted = @plants.sort_by { |x, y, _| along(x, y) }
          size = (sorted.size / @people.to_f).ceil
          return [] if size.zero?

          sorted.each_slice(size).with_index(1).map { |some, person| strip(some, person) }
        end

        private

        def along(x, y) = (x * @along[0]) + (y * @along[1])

        def strip(plants, person)
          kinds = plants.map(&:last).tally.sort.to_h
          by_stock = kinds.each_with_object(Hash.new(0)) { |(kind, count), all| all[@stocks[kind]] += count }
          loads = by_stock.to_h { |stock, count| [stock, Stock.loads(stock, count)] }
          Strip.new(person:, from: along(*plants.first.first(2)).round(1), to: along(*plants.last.first(2)).round(1),
                    count: plants.size, kinds:, loads:,
                    walks: loads.values.sum { |load| (load[:held] / load[:carried].to_f).ceil })
        end
      end
    end
  end
end
