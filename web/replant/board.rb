# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What the room shows before any ground is said: plans and their next step, what wants water, seed that can be
      # gathered now, ground that is ready for a plan.
      class Board
        SHOWN = 6 # rows of each
        SOON = 14 # days ahead that seed to gather is told
        READY = %w[quiet closed].freeze # states in which ground can be planted

        # next: words of its next step; on: its day, nil where nobody can say.
        Plan = Core::Value.define(:plan, :next, :on)

        def initialize(property, units, today)
          @property, @units, @today = property, units, today
        end

        # [Plan], the soonest step first.
        def plans
          @plans ||= Store::PlantingPlan.latest(@property).map { |plan| step(plan) }
                                        .sort_by { |one| one.on || Date.new(9999) }
        end

        # [Store::WaterOwed::Owed], the driest first.
        def thirsty = @thirsty ||= Store::WaterOwed.new([@property], @today).rows.first(SHOWN)

        # [Core::Replant::Gathering::Window] of seed that is ripe or soon will be.
        def gather
          @gather ||= GatherBoard.new({}, @property, @units, @today).windows
                                 .select { |one| one.from <= @today + SOON && one.to >= @today }.first(SHOWN)
        end

        # Patches that have gone quiet and have no plan.
        def ready
          planned = Store::PlantingPlan.live.select(:patch_id)
          @ready ||= @property.live_patches.where(state: READY).exclude(id: planned).exclude(plant_key: nil)
                              .order(Sequel.desc(:id)).limit(SHOWN).all
        end

        private

        def step(plan)
          waiting = plan.plantings.select { |one| one.done_on.nil? }
          task = care(plan)
          asked = task && (waiting.empty? || task.due_on <= @today)
          return Plan.new(plan:, next: task.reason, on: task.due_on) if asked
          return Plan.new(plan:, next: "All of it is planted", on: nil) if waiting.empty?

          from, to = waiting.map(&:from_on).min, waiting.map(&:to_on).min
          words = plan.seed? ? "Sow" : "Plant"
          Plan.new(plan:, next: "#{words} between #{Web::Words.day(from)} and #{Web::Words.full_day(to)}", on: from)
        end

        # The next visit that the ground's plantings ask for.
        def care(plan) = Store::Task.of_plantings([plan.patch_id]).undone.order(:due_on).first
      end
    end
  end
end
