# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # A management plan for the people of a land: the chapters that were chosen, written from what stands there on
        # the day. It is kept as it was said (Store::LandPlan).
        class ManagementPlan
          CHAPTERS = [Chapters::Changed, Chapters::Goals, Chapters::LandMap, Chapters::Standing, Chapters::Methods,
                      Chapters::First, Chapters::Calendar, Chapters::Effort, Chapters::Safety, Chapters::Permits,
                      Chapters::Disposal, Chapters::GoingBack, Chapters::Success, Chapters::Yourself]
                     .to_h { |chapter| [chapter.key, chapter] }.freeze
          YEARS = (1..10)
          AT_ONCE = 300 # open patches that are written about while the page waits

          # Begins a version and has it written, in the background where the land is large; the Store::LandPlan.
          def self.make(property, today, made_by:, asked:)
            open = property.live_patches.unordered.wanting_work.count
            record = Store::LandPlan.begin(property, made_on: today, made_by:, asked:)
            job = Store::Job.start("land_plan", record, total: asked["parts"].size)
            failed = ->(words) { record.update(status: "failed", fault: words) }
            job.public_send(open <= AT_ONCE ? :now : :later, failed:) { new(record).write(job) }
            record.refresh
          end

          attr_reader :land

          def initialize(record)
            @record = record
            @land = Land.new(record.property, record.made_on)
          end

          # Writes every chapter and keeps it.
          def write(job)
            parts = chapters.each_with_index.filter_map do |chapter, n|
              part = chapter.new(self).part
              job.at(n + 1)
              part.to_h unless part.empty?
            end
            job.hold { @record.update(said: JSON.generate(parts), figures: JSON.generate(figures), status: "made") }
          end

          def notes = asked.fetch("notes", {})
          def years = asked.fetch("years", 5)
          def before = @record.before
          # A plot as SVG; no request stands behind it.
          def draw(name, **locals) = App.new!.plot(name, **locals)

          # {plant => {"open", "m2", "hours"}}
          def figures
            @figures ||= land.kinds.to_h do |kind|
              hours = land.sum(kind.open).hours
              [kind.plant.key, { "open" => kind.open.size, "m2" => kind.gross_m2&.round(1),
                                 "hours" => hours && hours["likely"].round(1) }]
            end
          end

          private

          def asked = @record.asked_for
          def chapters = CHAPTERS.values_at(*CHAPTERS.keys & asked.fetch("parts"))
        end
      end
    end
  end
end
