# frozen_string_literal: true

require "csv"

module Thistle
  module Demo
    # What is under way on the demo's first property, one of each: a season plan, a trial, a planting with its first
    # count, seed on the shelf, a place to gather, a sprayer, an import that waits for answers, a management plan.
    class HalfWay
      # told: the scenario's part; ground: the property's Ground.
      def initialize(told, property, ground, today)
        @told, @property, @ground, @today = told, property, ground, today
      end

      def load
        plan_season(@told["season_plan"])
        try(@told["trial"])
        plant(@told["planting_plan"])
        @told["seed"].each { |row| Store::SeedOnHand.create(**row, created_at: Time.now.utc) }
        gather(@told["gather"])
        Store::Calibration.create(**@told["sprayer"], created_at: Time.now.utc)
        bring(@told["arrival"])
        hand_on(@told["land_plan"])
      end

      private

      def patch(code) = Store::Patch.first(code:)

      def plan_season(told)
        goal = Core::Knowledge.shipped.goals.fetch(told["goal"])
        other = told["other"].to_h { |week, hours| [week.iso8601, hours] }
        asked = { **told, "other" => other, "litres" => nil, "weights" => goal.weights, "pins" => [], "bans" => [] }
        Web::Decide::Planner.ask(@property, asked, @today)
      end

      def try(told)
        how = %w[first second].flat_map { |arm| told[arm].map { |part, text| [:"#{arm}_#{part}", text] } }.to_h
        patch = patch(told["patch"])
        run = Store::TrialRun.create(patch_id: patch.id, question: told["question"], begun_on: told["begun"],
                                     seed: patch.id + told["tags"], **how)
        run.give_out(told["tags"], told["begun"])
        run.count(alive: told["alive"], unfound: told["unfound"], on: told["counted"])
      end

      # The first version of the plan for the people of the land, with all chapters.
      def hand_on(told)
        plan = Web::Records::Reports::ManagementPlan
        asked = { "parts" => plan::CHAPTERS.keys, "years" => told["years"], "notes" => told["notes"] }
        plan.make(@property, @today, made_by: told["made_by"], asked:)
      end

      def plant(told)
        mix = told["mix"].map do |row|
          native = Core::Knowledge.shipped.native(row["native"])
          Store::PlantingPlan::Item.new(**row.transform_keys(&:to_sym), native:, bulk_g: nil)
        end
        plan = Store::PlantingPlan.make(patch(told["patch"]), kind: told["kind"], area_m2: told["area"].to_f, mix:,
                                                              said: told["said"], today: told["made"])
        plan.planted(told["planted"])
        look = patch(told["patch"]).tasks_dataset.undone.where(kind: "planting", due_on: told["looked_over"]).first
        Store::Wishes.say(look, done_on: told["looked_over"], done_by: "hand")
        told["counts"].each { |row| count(plan, row) }
      end

      def count(plan, row)
        planting = plan.plantings.find { |one| one.native_key == row["native"] }
        Store::SurvivorCount.record(planting, counted_on: row["day"], alive: row["alive"], looked_at: row["looked_at"])
      end

      def gather(row)
        longitude, latitude = degrees(row["at"])
        Store::GatherPlace.create(**row.except("at"), property_id: @property.id, longitude:, latitude:,
                                                      created_at: Time.now.utc)
      end

      # A spreadsheet as somebody sent it, read as any other; nobody has answered what it asks yet.
      def bring(told)
        heads, *rows = told["rows"]
        lines = rows.map { |name, at, *rest| [name, *degrees(at).reverse, *rest] }
        bytes = CSV.generate { |csv| [heads, *lines].each { |line| csv << line } }
        arrival = Store::Arrival.draft(@property, told["file"], Formats::Reader.read(bytes), format: "CSV")
        arrival.look(seen_on: @today)
      end

      # [longitude, latitude] of metres east and north of the property's point.
      def degrees(at) = @ground.shape("point" => at)["coordinates"]
    end
  end
end
