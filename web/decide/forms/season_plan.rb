# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Forms
        # What a season has: hours by week, a licence, money, herbicide; and the goal.
        class SeasonPlan < Form
          OTHER = /\A\s*(\d{4}-\d\d-\d\d)\s*[: ]\s*(\d{1,4}(?:[.,]\d{1,3})?)\s*\z/

          class Fields < Form::Contract
            params do
              required(:from).filled(:date)
              required(:weeks).filled(:integer, gteq?: 4, lteq?: 52)
              required(:hours).filled(:float, gteq?: 0, lteq?: 2000)
              optional(:other).filled(:string, max_size?: 4000)
              optional(:budget).filled(:float, gteq?: 0, lteq?: 1_000_000_000)
              optional(:mix).filled(:float, gteq?: 0, lteq?: 1_000_000)
              optional(:licensed_from).filled(:date)
              optional(:licensed_to).filled(:date)
              required(:goal).filled(:string)
            end
            rule(:licensed_from, :licensed_to).validate(:both_or_neither)
            rule(:licensed_to, :licensed_from) do
              if values[:licensed_from] && values[:licensed_to] && values[:licensed_to] < values[:licensed_from]
                key.failure("is before it begins")
              end
            end
            rule(:from) { key.failure("is more than a year away") if value && (value - today).to_i.abs > 366 }
            rule(:other) do
              bad = value.to_s.lines.map(&:strip).reject(&:empty?).grep_v(OTHER)
              if bad.any?
                key.failure("have a line that cannot be read: “#{bad.first}”. Write a day and its hours, " \
                            "such as 2026-07-06 0")
              end
            end
          end

          # The plan's question, ready to be written down; nil when something cannot be right.
          def asked(property)
            return unless ok?

            goal = Core::Knowledge.shipped.goals[values[:goal]]
            weights = values[:goal] == "kept" ? property.rank_weights : goal&.weights
            return failed(:goal, "is not one of the goals") && nil unless weights

            { **values.slice(:from, :weeks, :hours, :budget, :goal),
              licensed_from: values[:licensed_from], licensed_to: values[:licensed_to],
              other: other_weeks, litres:, weights:, pins: [], bans: [] }
          end

          # The form as it was when a plan was asked for.
          def self.of(plan, units, today)
            asked = plan.asked_for
            typed = asked.slice("from", "weeks", "hours", "budget", "goal", "licensed_from", "licensed_to")
                         .compact.transform_values do |value|
              value.to_s.delete_suffix(".0")
            end
            typed["other"] = asked["other"].map { |day, hours| "#{day} #{hours.to_s.delete_suffix(".0")}" }.join("\n")
            litres = asked["litres"]
            typed["mix"] = units.figure(units.us? ? litres * 1000 / Core::Units::ML_PER_GALLON : litres) if litres
            new(typed, units:, today:)
          end

          # hours: a week, as the address may ask.
          def self.fresh(property, units, today, hours: nil)
            goal = property.weights ? "kept" : "stop_spread"
            asked = hours&.match?(/\A\d{1,4}\z/) ? hours : "16"
            new({ "from" => today.iso8601, "weeks" => "26", "hours" => asked, "goal" => goal }, units:, today:)
          end

          private

          # Monday of each week that differs => hours.
          def other_weeks
            values[:other].to_s.lines.filter_map { |line| OTHER.match(line.strip) }.to_h do |match|
              day = Date.iso8601(match[1])
              [(day - ((day.wday - 1) % 7)).iso8601, Core::Decimal.read(match[2])]
            end
          end

          # Litres of ready mix; US properties type gallons.
          def litres = values[:mix] && (units.us? ? values[:mix] * Core::Units::ML_PER_GALLON / 1000 : values[:mix])
        end
      end
    end
  end
end
