# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What goes back in: plans and plantings of the land, and cleared ground without a plan.
          class GoingBack < Chapter
            TITLE = "What goes back in"

            private

            def write(part)
              part.table(["Patch", "What", "When", "So far"], plantings.map { |one| row(one) },
                         hrefs: plantings.map { |one| "/survey/patches/#{one.patch_id}" })
              jobs = open_kinds.filter_map { |kind| job(kind.plant) }
              return if jobs.empty?

              part.text("Opened ground fills with the next weed. Natives that do the work of the plant that goes:",
                        source: "common_practice")
              part.list(jobs)
            end

            def plantings
              @plantings ||= Store::Planting.where(deleted_at: nil)
                                            .where(patch_id: property.live_patches.unordered.select(:id))
                                            .order(:from_on, :id).eager(:patch).all
            end

            def row(one)
              [one.patch.code, "#{one.native.name}#{", #{one.amount_said}" if one.plugs}",
               one.done_on ? "planted #{full_day(one.done_on)}" : "from #{full_day(one.from_on)}", lives(one)]
            end

            # How many live by the last count.
            def lives(one)
              count = one.counts.reverse.find(&:alive)
              count ? "#{count.alive} of #{count.looked_at} alive on #{full_day(count.counted_on)}" : ""
            end

            def job(plant)
              return if plant.jobs.empty?

              ["#{plant.name}: #{plant.jobs.map { |name| name.tr("_", " ") }.join(", ")}", "memory"]
            end
          end
        end
      end
    end
  end
end
