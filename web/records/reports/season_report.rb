# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # What was done between two days and what came of it, for a board or a funder: Parts, each figure with the list
        # of its records.
        class SeasonReport
          PICTURES, MAPS = 8, 6 # patches shown before and after; properties drawn

          # desk: SeasonDesk.
          def initialize(desk)
            @desk, @now, @before = desk, desk.figures, desk.before
          end

          def title = "What was done on #{@desk.name}"

          def subtitle
            plants = @desk.plants&.map { |key| library.plant(key).name }
            words = "#{Words.full_day(range.first)} to #{Words.full_day(range.last)}"
            plants ? "#{words}: #{Words.listed(plants)}" : words
          end

          # [Part]
          def parts
            @parts ||= [at_a_glance, map, treated, hours, herbicide, control, natives, pictures].reject(&:empty?)
          end

          private

          def range = @desk.range
          def units = @desk.property.measures
          def library = Core::Knowledge.shipped
          def said = @said ||= Decide::Words.new(@desk.property, range.last)

          def at_a_glance
            Part.new("glance", "At a glance") do |part|
              part.figures(FIGURES.map { |label, list, figure| [figure_said(figure), label, records(list)] })
              if @before
                part.table(["What", "In these days", "A year before"], FIGURES.map do |label, _, figure|
                  [label.capitalize, *[@now, @before].map { |one| instance_exec(one, &figure) }]
                end, numbers: [1, 2])
              end
            end
          end

          # Where it was: the patches that were treated or checked, as they stand now, on each property's map.
          def map
            Part.new("where", "Where it was") do |part|
              visited = @now.visited
              next if visited.empty?

              @desk.properties.first(MAPS).each do |property|
                map = Survey::SiteMap.new(property, range.last, ids: visited)
                next if map.all.zero?

                patches = Words.count(map.all, "patch", "patches")
                words = "#{property.name}: #{patches} treated or checked, as they stand now."
                part.plot(App.new!.plot("report_map", map:), words)
              end
            end
          end

          # What stands at a glance: words, the list of its records, the figure of a SeasonFigures.
          FIGURES = [
            ["ground searched", "/survey/searches", ->(some) { units.area(some.searched.area_m2) }],
            ["treatments", "treatments", ->(some) { some.treated.sum(&:treatments) }],
            ["ground treated, as recorded", "treatments", ->(some) { ground(some.treated) }],
            ["hours of people", "treatments", ->(some) { hours_said(some.hours.all) }],
            ["checks", "checks", ->(some) { some.checked.checks }],
            ["patches clean at their last check", "checks", ->(some) { some.checked.patches_clean }],
            ["patches closed", "patches", ->(some) { some.checked.closed }],
            ["natives planted", "/replant", ->(some) { some.planted.natives }]
          ].freeze
          private_constant :FIGURES

          def hours_said(some) = some.zero? ? "0" : Words.hours(some)
          def figure_said(figure) = instance_exec(@now, &figure).to_s

          # The list of a kind, of these days.
          def records(list, more = {})
            return if @desk.whole? # lists are of the property at hand
            return list if list.start_with?("/")
            return "/records/lists/#{list}" if list == "patches"

            plant = @desk.plants&.one? ? { "plant" => @desk.plants.first } : {}
            return if @desk.plants && plant.empty? && more.empty?

            asked = { "from" => range.first.iso8601, "to" => range.last.iso8601, **plant, **more }
            "/records/lists/#{list}?#{Rack::Utils.build_query(asked)}"
          end

          def ground(treated) = units.area(treated.sum { |one| one.area_m2.to_f })

          def treated
            Part.new("treated", "Treated, by plant and method") do |part|
              rows = @now.treated
              part.table(%w[Plant Method Treatments Patches Ground Plants Stems Hours],
                         rows.map { |row| treated_row(row) }, numbers: (2..7).to_a,
                                                               hrefs: rows.map { |row| records("treatments", of(row)) })
              trees, uncounted = @now.freed
              if trees.positive?
                part.text("#{Words.count(trees,
                                         "tree")} freed of climbers#{uncounted_said(uncounted)}.")
              end
            end
          end

          def uncounted_said(number)
            number.positive? ? ", and #{Words.count(number, "treatment")} without a count" : ""
          end

          def treated_row(row)
            [row.plant ? library.plant(row.plant).name : "not named", library.removal(row.method).name, row.treatments,
             row.patches, row.area_m2 ? units.area(row.area_m2) : "", row.plants, row.stems, Words.hours(row.hours)]
          end

          def of(row) = { "method" => row.method, "plant" => row.plant || "none" }

          def hours
            Part.new("hours", "Hours") do |part|
              now = @now.hours
              next if now.all.zero?

              part.table(%w[Who Hours], { "Volunteers on the list" => now.volunteers, "Staff on the list" => now.staff,
                                          "Not on the list" => now.unnamed, "All" => now.all }
                                        .map { |who, some| [who, hours_said(some)] }, numbers: [1])
              part.text("A volunteer is a person with the role volunteer or trainee, and no paid role.",
                        source: "own_records")
              worth(part, now)
            end
          end

          def worth(part, now)
            if @desk.worth
              part.text("At #{said.money(@desk.worth)} an hour, the volunteers' hours are worth " \
                        "#{said.money(now.volunteers * @desk.worth)}.")
            else
              part.text("The volunteers' hours have no value here: nobody said what an hour counts for.")
            end
          end

          def herbicide
            Part.new("herbicide", "Herbicide, as acid") do |part|
              acids = @now.acids
              part.table(%w[Acid Amount], acids.grams.map { |acid, grams| [acid.capitalize, units.mass(grams)] },
                         numbers: [1], hrefs: acids.grams.map { "/mix/records" })
              if acids.untold.positive?
                part.caution("#{Words.count(acids.untold, "treatment")} with herbicide cannot be told in acid: the " \
                             "product or its amount is not on record.")
              end
            end
          end

          def control
            Part.new("control", "Did it work?") do |part|
              tried = @now.tried
              part.table(["Plant", "Method", "Stems", "Control", "95 % range", "Planned"],
                         tried.map { |one| control_row(one) }, numbers: [2, 3, 4, 5])
              checks(part, @now.checked)
            end
          end

          def checks(part, checked)
            return if checked.checks.zero?

            patches = Words.count(checked.patches, "patch", "patches")
            part.text("#{Words.count(checked.checks, "check")} on #{patches}. At the last check of each, " \
                      "#{checked.patches_clean} were clean: nothing alive, when it would have shown.",
                      source: "own_records")
          end

          def control_row(one)
            control, planned = one.control, one.planned.values_at("low", "high").uniq
            [one.plant.name, one.removal.name, control.treated, "#{control.percent.round} %",
             "#{control.low.round} to #{control.high.round} %", "#{planned.join(" to ")} %"]
          end

          def natives
            Part.new("natives", "What went back in") do |part|
              planted = @now.planted
              next if planted.plantings.zero?

              part.table(%w[What Number], [["Plantings", planted.plantings], ["Plants put in", planted.natives],
                                           ["Plantings of seed", planted.sown]], numbers: [1])
              if planted.looked_at.positive?
                part.text("Of #{planted.looked_at} that were counted since, #{planted.alive} are alive.",
                          source: "own_records")
              end
            end
          end

          def pictures
            Part.new("pictures", "Before and after") do |part|
              @now.pictures(PICTURES).each do |patch, before, after|
                part.heading(Words.patch_title(patch), href: "/survey/patches/#{patch.id}")
                part.pictures([before, after].map do |one|
                  [one.id, "#{one.moment_said}, #{Words.full_day(one.taken_on)}"]
                end)
              end
            end
          end
        end
      end
    end
  end
end
