# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # How long an active that was used keeps something from being planted: a planning value (memory), where a label
      # does not say. from, to: the days between which it usually ends; bioassay: a pot of that soil is sown first.
      Wait = Value.define(:active, :on, :kind, :from, :to) do
        def bioassay? = active.bioassay == true && kind != "grass"
        def over?(today) = to < today
      end

      # Of what was used, on a day.
      class Wait
        KINDS = { "grass" => "grasses", "forbs" => "flowers and legumes", "woody" => "plugs, shrubs and trees" }.freeze

        # [Wait] of actives that were used, [[Active, day]]: of each kind the last to end, if it has not ended yet.
        def self.of(used, today)
          all = used.flat_map { |active, on| KINDS.keys.map { |kind| wait(active, on, kind) } }
          all.group_by(&:kind).values.map { |some| some.max_by { |one| [one.to, one.from] } }
             .reject { |one| one.over?(today) }
        end

        def self.wait(active, day, kind)
          least, most = active.replant_days.fetch(kind)
          new(active:, on: day, kind:, from: day + least, to: day + most)
        end
        private_class_method :wait
      end
    end
  end
end
