# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Routes
        # What is handed on as pages, print and PDF: management plans, the season for a funder, an authority's year, a
        # page for a notice board, one person's hours.
        module Reporting
          PRINTED = { "notice" => { body: 15 } }.freeze # how what hangs on a wall is printed

          def self.registered(app)
            app.helpers Helpers
            plans(app)
            seasons(app)
            others(app)
          end

          def self.plans(app)
            app.get "/records/reports" do
              plans = land_plans
              form = Forms::LandPlan.like(plans.find(&:made?), units, today)
              show("records/reports", plans:, form:) { { plans: plans.map { |plan| Answers.land_plan(plan) } } }
            end

            app.post "/records/reports/plans" do
              form = Forms::LandPlan.new(params, units:, today:)
              asked = form.asked
              next show("records/reports", status: 422, plans: land_plans, form:) unless asked

              plan = Reports::ManagementPlan.make(property, today, made_by: form.values[:made_by], asked:)
              go_to "/records/reports/plans/#{plan.id}"
            end

            app.get "/records/reports/plans/:id" do
              plan = of_property(Store::LandPlan, params["id"])
              show("records/land_plan", plan:) do
                Answers.land_plan(plan).merge(parts: plan.parts.map do |part|
                  Answers.spoken(part)
                end)
              end
            end

            app.get "/records/reports/plans/:id/progress" do
              plan = of_property(Store::LandPlan, params["id"])
              headers "HX-Refresh" => "true" unless plan.making?
              part "records/_making", plan:
            end

            app.get "/records/reports/plans/:id/paper.pdf" do
              plan = of_property(Store::LandPlan, params["id"])
              halt 404 unless plan.made?
              paper "Management plan of #{plan.property.name}", Reporting.version(plan), plan.parts,
                    "management-plan-#{plan.version}.pdf"
            end

            { "drop" => :take_back, "keep" => :bring_back }.each do |name, act|
              app.post "/records/reports/plans/:id/#{name}" do
                plan = Store::LandPlan[Whole.read(params["id"])] || halt(404)
                turn_to(plan.property)
                plan.public_send(act)
                offer_undo "/records/reports/plans/#{plan.id}/keep" if name == "drop"
                go_to "/records/reports", "Version #{plan.version} is #{name == "drop" ? "taken off" : "back"}."
              end
            end
          end

          def self.version(plan) = "Version #{plan.version}, #{Words.full_day(plan.made_on)}, by #{plan.made_by}"

          def self.seasons(app)
            app.get "/records/reports/season" do
              desk = Reports::SeasonDesk.new(params, property, properties, today)
              report = Reports::SeasonReport.new(desk)
              show("records/season_report", status: desk.ok? ? 200 : 422, desk:, report:) { Answers.report(report) }
            end

            app.get "/records/reports/season/paper.pdf" do
              desk = Reports::SeasonDesk.new(params, property, properties, today)
              halt 422, desk.errors.map { |field, words| "#{field} #{words}" }.join("; ") unless desk.ok?
              paper_of Reports::SeasonReport.new(desk), "season-#{desk.range.last.iso8601}.pdf"
            end
          end

          def self.others(app)
            app.get "/records/reports/:kind" do
              report = told(params["kind"])
              show("records/report", report:, kind: params["kind"]) { Answers.report(report) }
            end

            app.get "/records/reports/:kind/paper.pdf" do
              paper_of told(params["kind"]), "#{params["kind"]}.pdf", **PRINTED.fetch(params["kind"], {})
            end
          end

          # What routes of reports share.
          module Helpers
            # Versions of the property at hand, the newest first.
            def land_plans = Store::LandPlan.live.where(property_id: property.id).reverse(:version).limit(50).all

            # The report of a kind, as the address asks for it; 404 for another, or where there is nothing to tell of.
            def told(kind)
              { "authority" => method(:authority), "notice" => method(:notice), "hours" => method(:own_hours) }
                .fetch(kind) { halt 404 }.call
            end

            def paper(title, subtitle, parts, filename, **how)
              content_type "application/pdf"
              attachment filename, :inline
              Reports::Pdf.new(title, subtitle, parts, property.habits.paper, **how).render
            end

            def paper_of(report, filename, **how)
              paper(report.title, report.subtitle, report.parts.map(&:to_h), filename, **how)
            end

            private

            def authority
              records = Store::HerbicideRecords.new(property)
              year = params["year"] ? Whole.read(params["year"]) : today.year
              halt 404 unless year.between?(1900, 2200)
              Reports::AuthoritySummary.new(property, year, records.rows(year:), records.rule)
            end

            def notice
              plant = knowledge.plants[params["plant"].to_s]
              halt 404 unless plant && property.weed?(plant)
              call = params["call"].to_s.strip[0, 120]
              Reports::NoticePage.new(property, plant, today, call: (call unless call.empty?))
            end

            def own_hours
              person = person_at(params["person"])
              desk = Reports::SeasonDesk.new(params, property, properties, today)
              halt 422, json(errors: desk.errors) unless desk.ok?
              Reports::OwnHours.new(person, properties, desk.range)
            end
          end
        end
      end
    end
  end
end
