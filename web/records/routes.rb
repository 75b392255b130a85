# frozen_string_literal: true

module Thistle
  module Web
    module Records
      # The timeline of a property, and how the property is kept.
      module Routes
        KEPT = %i[name units stance texture region record_rule currency paper grid dates emergency_number].freeze

        def self.registered(app)
          app.get "/records" do
            timeline, jobs = Timeline.new(property, before: day_in_query("before")), Store::Job.under_way
            show "records/index", timeline:, jobs:, keeping: Store::Keeping.said,
                                  form: Routes.form(property, today) do
              Answers.timeline(timeline, jobs).tap { go_on("before" => timeline.more) if timeline.more }
            end
          end

          app.post "/records/settings" do
            form = Forms::Settings.new(params, units:, today:)
            next go_to("/records", "#{property.name} is kept as you said.") if form.store(property)

            show "records/index", status: 422, timeline: Timeline.new(property), form:,
                                  jobs: Store::Job.under_way, keeping: Store::Keeping.said
          end
          app.register Properties, Lists, Reporting, Bundles, Amendments, Looks
        end

        def self.form(property, today)
          typed = property.values.slice(*KEPT).compact.transform_values(&:to_s)
          ticks = property.values.slice(:licensed, :aquatic_label, :fire_adapted).transform_values(&:to_s)
          copies = { keep_copies_days: Store::DailyCopies.kept_days.to_s }
          Forms::Settings.new({ **typed, **ticks, **copies }, units: property.measures, today:)
        end
      end
    end
  end
end
