# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # How verdicts, rules and what they look at are said.
      class Words
        include Web::Words

        FACTS = { plant: "the plant", settled: "name settled", size: "stems", stage: "stage", phases: "phases",
                  cover: "cover",
                  freed_on: "trees freed", new_here: "new here", reported: "reported",
                  soil: "soil", slope: "lie of the ground", footing: "roots in", water_m: "distance to water",
                  zones: "zones in reach",
                  natives_near: "desirable plants in reach", new_planting: "new plantings", clean_site: "never sprayed",
                  date: "day", day: "weather of the day", next_days: "rain ahead",
                  hours: "hours ahead", season: "marks of the year",
                  climate: "climate",
                  stance: "herbicide here", schools: "schools kept", licensed: "licensed person",
                  aquatic_label: "product for water",
                  tools: "tools at hand", crew: "people", burn_permit: "burn permit and crew",
                  fire_adapted: "fire at home here",
                  full_cover: "full cover", few: "few plants", belongs: "in this region", aim: "what the ground is for",
                  purpose: "asked to" }.freeze
        FORCES = { safety: %w[safety clay], legal: %w[law clay], school: %w[school thistle], craft: %w[craft moss],
                   local: ["this ground's own", "ochre"] }.freeze
        SHELVES = { go: %w[Go check], wait: %w[Wait hourglass], ask: ["Ask first", "help-circle"],
                    no: ["Not here", "x"] }.freeze
        WORK = { "any" => "work of any kind", "herbicide" => "herbicide of any kind", "foliar" => "spraying leaves",
                 "stem_herbicide" => "stem herbicide", "pulling" => "pulling", "digging" => "digging",
                 "severing" => "cutting below the crown",
                 "cutting" => "cutting", "girdling" => "girdling", "freeing" => "freeing trees",
                 "covering" => "mulch and sheets",
                 "burning" => "burning", "machine" => "machines", "grazing" => "stock",
                 "aquatic" => "work in the water" }.freeze
        LEFT_OUT = { "window" => "has no method open in these weeks, or takes more than they have.",
                     "label" => "would be past what the label allows on it this year.",
                     "room" => "left out: other patches prevent more harm with the same hours, mix or money." }.freeze
        UNSAID = %i[plant season phases schools tools next_days].freeze # what a reason's own words say better

        def initialize(property, today)
          @property, @today, @units = property, today, property.measures
        end

        def force_tag(rule)
          FORCES.fetch(rule.force).then { |words, hue| %(<span class="tag #{hue}">#{h words}</span>) }
        end

        def rule_title(key) = key.to_s.start_with?("local_") ? "a rule of this ground" : Core::Decide::Rule.title(key)

        # "soil dry, 38 m from water": what a rule looked at, as it stood.
        def looked_at(rule, situation)
          said = rule.looks.to_h { |fact| [fact, fact_said(fact, situation)] }.compact
          said.map { |fact, words| "#{FACTS.fetch(fact)} #{words}" }.join(", ")
        end

        def fact_said(fact, now)
          value = now[fact]
          return if UNSAID.include?(fact)
          return fact_plain(value) if value.nil? || [true, false].include?(value)

          case fact
          when :date, :freed_on then day(value)
          when :day then day_said(value)
          when :water_m then @units.length(value)
          when :cover then "#{value.round} %"
          when :zones then value.map(&:label).join(", ")
          else fact_plain(value)
          end
        end

        def day_said(weather)
          wind, rain = weather.wind && @units.wind(weather.wind), weather.rain && @units.rain(weather.rain)
          "#{@units.temperature(weather.tmin)} to #{@units.temperature(weather.tmax)}, wind #{wind || "not known"}, " \
            "rain #{rain || "not known"}"
        end

        def fact_plain(value)
          { true => "yes", false => "no", nil => "not answered" }.fetch(value) { value.to_s.tr("_", " ") }
        end

        # "20 plants, 60 stems, 25 seedlings": what was counted of them.
        def amounts_said(facts)
          [facts.plants && count(facts.plants, "plant"), facts.stems && count(facts.stems, "stem"),
           facts.seedlings && count(facts.seedlings, "seedling")].compact.join(", ")
        end

        # What a pass takes, as a range: "6 to 18".
        def hours_span(verdict)
          range = verdict.effort.hours_range or return
          low, high = hours(range["low"]), hours(range["high"])
          low == high ? low : "#{low} to #{high}"
        end

        def money(amount) = amount && "#{@property.rates.currency}#{number_said(amount)}"

        def number_said(amount) = amount < 10 ? format("%.2f", amount) : Core::Decimal.apart(amount.round)

        def mix_said(litres) = litres&.positive? ? @units.volume(litres * 1000) : "none"

        # What a method takes, short: mix and money of a pass, passes, and all hours, by which methods are ordered.
        def takes_said(effort)
          [("#{mix_said(effort.litres)} of mix" if effort.litres.positive?), "#{money(effort.cost)} a pass",
           effort.passes && count(effort.passes, "pass", "passes"),
           effort.hours_compared && "#{hours(effort.hours_compared)} h until quiet"].compact
        end

        # What a plan's work on a patch takes: "6 h, 2 L of mix, 1 of 3 parts".
        def item_said(item)
          ["#{hours(item[:hours])} h", ("#{mix_said(item[:litres])} of mix" if item[:litres].positive?),
           ("#{item[:parts]} of #{item[:of]} parts" if item[:of] > 1)].compact.join(", ")
        end

        # Why a plan leaves a patch out.
        def left_out(why) = LEFT_OUT[why]

        # "a licensed person on site, from 15 May".
        def way_said(way)
          words = listed(way.words)
          [way.date && "from #{near(way.date, @today)}", ("with #{words}" unless words.empty?)].compact.join(" ")
        end

        # "04-15" as people say it.
        def month_day(text) = day(Core::Decide::LocalRule.day(@today.year, text))

        def step_said(step)
          return "The step is taken out." if step.deleted_at

          step.done_on ? "Done on #{full_day(step.done_on)}." : "The step is open."
        end

        # Rain ahead, where a pull waits for it.
        def rain_note(verdict)
          return unless verdict.wait? &&
                        verdict.reasons.any? { |reason| reason.rule == :dry_soil && reason.kind == :wait }

          rain = @property.site(@today).next_rain(@today, 8)
          rain ? "Rain is due #{near(rain, @today)}." : "No soaking rain is in sight."
        end

        # How a patch is held in a season plan: " by pull by hand in the week of 6 July".
        def wish_said(wish)
          removal = Core::Knowledge.shipped.methods_of_removal[wish["method"]]
          week = wish["week"].to_s.match?(/\A\d{4}-\d\d-\d\d\z/) && Date.iso8601(wish["week"])
          "#{" by #{removal.name.downcase}" if removal}#{" in the week of #{day(week)}" if week}"
        rescue Date::Error
          ""
        end

        # The year of a school's answer beside the one that counts: "3 yr, 12 h, no mix".
        def takes(verdict)
          return "nothing is left to do" unless verdict

          mix = verdict.effort.litres_to_quiet
          [verdict.years_to_quiet ? count(verdict.years_to_quiet, "year") : "no end in sight",
           verdict.hours_to_quiet && "#{hours(verdict.hours_to_quiet)} crew hours",
           mix&.positive? ? "#{mix_said(mix)} of mix" : "no herbicide",
           verdict.cost_to_quiet && money(verdict.cost_to_quiet)].compact.join(", ")
        end
      end
    end
  end
end
