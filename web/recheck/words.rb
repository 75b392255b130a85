# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # What the recheck room says of the years ahead.
      module Words
        # The parameters of a stand, as people would say them.
        PARAMETERS = {
          "germination" => "seed that comes up in a year",
          "stirred" => "seed that comes up where soil is stirred",
          "seedlings" => "seedlings that live a year",
          "juveniles" => "young plants that live a year",
          "adults" => "grown plants that live a year",
          "to_seed" => "years from seedling to seed",
          "fecundity" => "living seeds of a plant in a year",
          "resprout" => "treated plants that survive and bear seed again after a year",
          "seeds_on" => "treated plants that survive and bear seed in the same year",
          "creep" => "new plants by root or runner",
          "daughters" => "new plants that bear within a year",
          "wakes" => "suckers of a plant cut and not treated",
          "pieces" => "pieces that a hurt plant leaves",
          "piece_shoots" => "pieces that shoot in a year",
          "crowd" => "plants per m² at which half of the seedlings find no room",
          "stood" => "years of seed fall before the patch was first seen",
          "bank" => "buried seed left a year later",
          "piece_keep" => "buried pieces that live a year",
          "found" => "plants that a visit finds",
          "found_small" => "seedlings that a visit finds",
          "kill_small" => "pulled seedlings that die",
          "plants" => "plants there were at first"
        }.freeze
        FROM = { plant: "this plant", trait: "plants that live alike", form: "plants of its form",
                 any: "any plant" }.freeze

        # Where a visit is made, by its kind.
        MADE_AT = { "check" => "/recheck/patches/%d", "treat" => "/work?patch=%d", "report" => "/identify?patch=%d",
                    "planting" => "/survey/patches/%d#visits" }.freeze

        module_function

        # What a list of visits is called that are due from a day to a day; nil for no bound.
        def span(from, to, today)
          return "Open visits" unless from || to
          return "Late visits" if from.nil? && to < today
          return "Visits from #{Web::Words.full_day(from)} on" unless to
          return "Visits to #{Web::Words.full_day(to)}" unless from

          "Visits from #{Web::Words.day(from)} to #{Web::Words.full_day(to)}"
        end

        # What a check counts, {field => [its name, a hint]}: stubs where stems were cut, plants in water, else plants.
        def counted(plant, removal)
          beside = { suckers: ["Suckers", "from roots or runners, beside"], seedlings: ["Seedlings", "this year's"] }
          if plant&.aquatic?
            { resprouts: ["Plants grown again", "rooted or floating where it was cleared"],
              missed: ["Missed plants", "never taken"], seedlings: ["New plants", "from seed or pieces"] }
          elsif removal.nil? || removal.is?(:cutting, :felling, :stem_herbicide, :girdling, :topping)
            { resprouts: ["Stubs alive", "leaf or shoot from the old stub"], missed: ["Missed stems", "never cut"],
              **beside }
          else
            { resprouts: ["Resprouts", "treated plants that stand again"], missed: ["Missed plants", "never treated"],
              **beside }
          end
        end

        def made_at(task) = format(MADE_AT.fetch(task.kind), task.patch_id)

        # A way of going on: "Cut stump", "Cut stump, soil stirred and every flush taken".
        def way(strategy, first)
          name = Core::Knowledge.shipped.removal(first).name
          { "stirred" => "#{name}, with soil stirred and all seedlings removed",
            "skipped" => "#{name}, but no visit this year",
            "stopped" => "Stop now" }.fetch(strategy.key) { Core::Knowledge.shipped.removal(strategy.key).name }
        end

        # When it is quiet: "in 5 years (3 to 9)".
        def quiet(answer, years)
          low, likely, high = answer.quiet.values_at(:low, :likely, :high)
          return "not in #{years} years" unless low
          return "not likely in #{years} years; at best in #{count(low)}" unless likely
          return "now" if likely.zero? && high&.zero?

          "in #{count(likely)} (#{low} to #{high || "more than #{years}"})"
        end

        # How late: "12 days", "7 weeks", "5 months".
        def late(days)
          return Web::Words.count(days, "day") if days < 21

          days < 90 ? "#{days / 7} weeks" : "#{(days / 30.44).round} months"
        end

        # What of a quiet patch may live: "a missed plant 4 %, seed 12 %".
        def hidden(look, today)
          seed, pieces = %i[seed pieces].map { |part| look.presence.public_send(part, today) }
          parts = { "a missed plant" => look.presence.stands, "seed" => seed, "pieces" => pieces }
          parts.select { |_, chance| chance >= 0.001 }
               .map { |what, chance| "#{what} #{(chance * 100).round(1).to_s.delete_suffix(".0")} %" }.join(", ")
        end

        # A share of futures as people say it: "1 of 33", "8 of 10".
        def chance(share)
          return "almost no" if share < 0.01
          return "nearly all" if share > 0.99
          return "#{(share * 100).round} of 100" if share > 0.95

          share < 0.5 ? "1 of #{(1 / share).round}" : "#{(share * 10).round} of 10"
        end

        # A value of a parameter, a share in percent.
        def value(name, number)
          return "#{(number * 100).round(number < 0.1 ? 1 : 0).to_s.delete_suffix(".0")} %" if
            Core::Recheck::Stages::SHARES.include?(name)

          (number < 10 ? number.round(1) : number.round).to_s.delete_suffix(".0")
        end

        def count(years) = years == 1 ? "1 year" : "#{years} years"
        private_class_method :count
      end
    end
  end
end
