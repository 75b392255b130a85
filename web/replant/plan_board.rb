# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # A planting plan as it is drawn and handed out: the picture, its key, the order list, who carries what.
      class PlanBoard
        COLOURS = %w[#6A2C7F #A8462A #4C6B2F #2F6C8C #9A6A00 #5F6B73 #B0347B #1F7A6B #7A4A21 #3D4FA1 #8A8F1B #C25E00
                     #52307C #0F5E4F #93303F #41719C].freeze
        PAD = 2.0 # m around the bed
        FRONTS = { "" => "nobody", "0" => "the north", "90" => "the east", "180" => "the south",
                   "270" => "the west" }.freeze
        Row = Core::Value.define(:letter, :colour, :native, :count, :bulk_g, :stock, :planting, :order_by, :share,
                                 :order_g)

        attr_reader :plan, :units

        def initialize(plan, units, today, people: 4)
          @plan, @units, @today, @people = plan, units, today, people
        end

        def patch = plan.patch
        def bed = plan.laid_out
        def drawn? = !bed.nil?
        def plants = bed[:plants]
        def natives = plan.items.map(&:native)

        # The key, by share: [Row].
        def rows
          @rows ||= plan.items.each_with_index.zip(plan.counts).map do |(item, n), count|
            native = item.native
            planting = plan.plantings.find { |one| one.native_key == native.key }
            Row.new(letter: letter(n), colour: COLOURS[n % COLOURS.size], native:, count:, bulk_g: item.bulk_g,
                    stock: plan.seed? ? "seed" : Core::Replant::Stock.of(native), planting:, share: item.share,
                    order_g: item.bulk_g && [item.bulk_g - shelf.fetch(native.key, 0.0), 0.0].max,
                    order_by: planting && order_by(planting))
          end
        end

        # What flowers when: [[Native, months]], and the months of the season.
        def blooms = natives.map { |native| [native, native.blooms(patch.property.latitude)] }
        def season = Core::Replant::BloomSeason.months(patch.property.site(@today))

        # In which they go into the ground: the widest first, and from the back to the front.
        def order = rows.sort_by { |row| [row.native.woody? ? 0 : 1, -row.native.spacing_cm, -row.native.height_cm] }

        def strips
          @strips ||= Core::Replant::Carry.new(plants, rows.map(&:stock), people: @people, front: bed[:front]).strips
        end

        # [west, south, wide, high] of the picture, m.
        def box
          @box ||= begin
            xs, ys = bed[:rings].flatten(1).transpose
            [xs.min - PAD, ys.min - PAD, xs.max - xs.min + (2 * PAD), ys.max - ys.min + (2 * PAD)]
          end
        end

        # A place as the picture has it: from its top, in metres.
        def at(x, y) = [(x - box[0]).round(2), (box[1] + box[3] - y).round(2)]

        def outline(rings) = rings.map { |ring| "M#{ring.map { |place| at(*place).join(" ") }.join("L")}Z" }.join
        def line(list) = "M#{list.map { |place| at(*place).join(" ") }.join("L")}"

        # Every plant of a kind, as one path of dots.
        def dots(kind)
          here = [0.0, 0.0]
          plants.filter_map { |x, y, n| at(x, y) if n == kind }.map do |place|
            step = place.zip(here).map { |a, b| short((a - b).round(2)) }
            here = place
            "m#{step[0]}#{" " unless step[1].start_with?("-")}#{step[1]}h0"
          end.join
        end

        def spacing(kind) = plan.items[kind].spacing_m || 0.4

        # Drifts that are marked with a letter and how many: the largest that leave room for the next.
        def drifts
          reach = plan.items.each_index.map { |n| spacing(n) * 1.45 }
          clumps = Core::Replant::Clumps.of(plants, reach).select { |clump| clump[3] >= 3 }
          clumps.sort_by { |clump| -clump[3] }.each_with_object([]) do |drift, kept|
            kept << drift if kept.none? { |other| too_near?(drift, other) }
            break kept if kept.size == DRIFTS
          end
        end
        DRIFTS = 90
        private_constant :DRIFTS

        # Height of the letters in the drawing, m.
        def mark = (box.last(2).max / 52).round(3)

        # What nothing is planted on: [[label, kind, rings]].
        def around = @around ||= Store::PlanBed.new(plan).around

        # A round length for the scale bar, m.
        def bar = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500].find { |metres| metres >= box[2] / 6 } || 1000

        def letter(number) = number < 26 ? ("A".ord + number).chr : "A#{((number % 26) + 65).chr}"

        # In how many loads a pickup brings it.
        def pickups
          Core::Replant::Stock.pickups(rows.select(&:count).map { |row| [row.stock, row.count] })
        end

        # Natives of a nearby region, chosen on purpose.
        def from_nearby
          place = Store::SiteGround.new(patch.property, patch, @today).place
          natives.select { |native| native.at(place) == :nearby }
        end

        private

        # g of seed on the shelf, by native.
        def shelf = @shelf ||= Store::SeedOnHand.on_shelf

        def too_near?((x, y, *), (ox, oy, *)) = (x - ox).abs < 2.6 * mark && (y - oy).abs < 1.5 * mark

        ORDER_WEEKS = { "seed" => 8, "plugs" => 14, "pots" => 10, "bare_root" => 16, "stakes" => 4, "divisions" => 1,
                        "tubers" => 12 }.freeze # before it goes in (memory)
        private_constant :ORDER_WEEKS

        def order_by(planting)
          stock = plan.seed? ? "seed" : Core::Replant::Stock.of(planting.native)
          planting.from_on - (7 * ORDER_WEEKS.fetch(stock))
        end

        def short(number) = number.to_s.delete_suffix(".0").sub(/\A(-?)0\./, '\1.')
      end
    end
  end
end
