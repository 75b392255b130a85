# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # When and how the ground of a plan is made ready and planted: the best week as odds, what has to lie cold before
      # a spring sowing, the schools of readying, cardboard and chips.
      class WhenBoard
        SHEET = { width_m: 1.2, height_m: 0.9, overlap_m: 0.2 }.freeze # of cardboard (memory)
        CHIPS, EDGE, LOAD = 10.0, 0.3, 10.0 # cm deep; m beyond the bed; m³ a truck brings (memory)
        Cold = Core::Value.define(:native, :days, :start, :late)

        attr_reader :plan

        def initialize(plan, today)
          @plan, @today = plan, today
        end

        def patch = plan.patch
        def property = patch.property
        def site = property.site(@today)

        # The next windows of what is planted, soonest first: [[window, [native]]].
        def windows
          @windows ||= begin
            sowing = Core::Replant::Sowing.new(site)
            at_once = sowing.of_mix(plan.items.map(&:native), cold: plan.sown[:cold] || false) if plan.seed?
            pairs = plan.items.filter_map do |item|
              window = allowed(at_once || sowing.of(item.native)).first
              window && [window, item.native]
            end
            pairs.group_by { |window, _| [window.from, window.to] }.values
                 .map { |some| [some.first.first, some.map(&:last)] }.sort_by { |window, _| window.from }
          end
        end

        # The weeks of the windows ahead with what water they needed in past years: [PlantingOdds::Week]; the same all
        # day for a site.
        def weeks
          @weeks ||= spans.flat_map do |from, to|
            Core::Kept::ANSWERS.fetch([:planting_weeks, site, from, to]) { odds.weeks(from, to) }
          end
        end

        def best = weeks.min_by { |week| [week.cost, week.date] }

        # What has to lie cold and moist before it is sown in spring, and since when.
        def cold
          spring = [site.year(@today), site.year(@today >> 12)].filter_map { |year| year.moment(:last_frost)&.date }
                                                               .find { |day| day > @today } or return []
          plan.items.map(&:native).select { |native| native.germination["cold_days"] }.map do |native|
            days = native.germination["cold_days"]
            start = spring + 7 - days
            Cold.new(native:, days:, start:, late: start < @today)
          end
        end

        # The schools of readying, for the best week, or the first day of the window.
        def schools
          @schools ||= Core::Replant::Readying.new(ground, site, by: first_day).rows
        end

        def first_day
          return best.date if best

          windows.any? ? [windows.first.first.from, @today].max : @today + 180
        end

        # What cardboard and chips come to: sheets, m³, loads, m of edge.
        def chips
          side = Math.sqrt(plan.area_m2)
          m2 = (side + (2 * EDGE))**2
          mulch = Core::Work::Mulch.new(area_m2: m2, depth_cm: CHIPS)
          { m2:, sheets: mulch.sheets(**SHEET), m3: mulch.volume_m3, loads: (mulch.volume_m3 / LOAD).ceil,
            edge_m: 4 * side }
        end

        # The last day on which a label keeps planting off this ground; nil where none does.
        def kept = defined?(@kept) ? @kept : (@kept = patch.history.kept_until(:unplanted, @today))

        private

        # What is left of windows once the label lets it.
        def allowed(windows)
          return windows if kept.nil?

          windows.select { |one| one.to > kept }.map { |one| one.from <= kept ? one.with(from: kept + 1) : one }
        end

        def odds = @odds ||= Core::Replant::PlantingOdds.new(site)

        # What is left of the windows of plants, this year's and the next; of seed none, since winter waters it.
        def spans
          return [] if plan.seed?

          sowing = Core::Replant::Sowing.new(site)
          plan.items.flat_map { |item| allowed(sowing.of(item.native)).first(2) }
              .map { |window| [[window.from, @today].max, window.to] }.uniq.sort.first(3)
        end

        def ground
          said = JSON.parse(plan.said)
          Core::Replant::Readying::Ground.new(plant: patch.plant, m2: plan.area_m2, slope: patch.lie, kind: plan.kind,
                                              stance: property.stance, fire_adapted: property.fire_adapted,
                                              lines: said["lines"], light: said["light"], wage: property.rates.hour,
                                              undug: undug)
        end

        def undug
          zone = patch.zones_in_reach&.find do |one|
            one.touches? && Core::Knowledge.shipped.zone_kinds[one.kind]&.forbids&.include?("digging")
          end
          zone&.label
        end
      end
    end
  end
end
