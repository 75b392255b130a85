# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # How the room opens: the work days ahead and those still to be written down, who and what they lack, what the day
      # is good for, and the best move of each patch.
      class Board
        AHEAD = 2 # work days shown

        def initialize(property, today)
          @property, @today = property, today
          @moves = Store::Moves.new([property], today)
        end

        # [DayBoard], the next first.
        def ahead
          @ahead ||= days.where(Sequel[:held_on] >= @today).limit(AHEAD).all.map { |day| DayBoard.new(day, @today) }
        end

        # Work days that were held and have no records yet.
        def unwritten = @unwritten ||= days.where(Sequel[:held_on] < @today).limit(AHEAD).all

        # {why => [code]} of what a day has no room for, for a reason that can be helped.
        def out_of(board)
          helped = board.answer[:left_out].select { |out| out[:why] }
          helped.group_by { |out| out[:why] }.transform_values { |some| some.map { |out| out[:code] } }
        end

        # [[Person, words]] whose licence has ended or soon will.
        def licences = @licences ||= PeopleBoard.new(@today).licences

        def conditions = @conditions ||= Season::ConditionsBoard.new([@property], @today, @moves.wanted)

        # The best move of a patch (Core::Decide::Agenda::Item); nil of one without a name.
        def move(patch) = moves_by_patch[patch.id]

        # Patches whose best move is right today.
        def right_today = @moves.items.select { |item| RIGHT.include?(item.group) }.sum { |item| @moves.ids(item).size }
        RIGHT = %i[closing good].freeze

        private

        def days = Store::WorkDay.live.where(property_id: @property.id, closed_at: nil).order(:held_on, :id)

        def moves_by_patch
          @moves_by_patch ||= @moves.items.each_with_object({}) do |item, all|
            @moves.ids(item).each { |id| all[id] = item }
          end
        end
      end
    end
  end
end
