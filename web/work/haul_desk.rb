# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # What was cut and what is opened, as typed: hauling, piles and bags; chips and cardboard, and their depth.
      class HaulDesk
        include Mix::Numbers

        SIZES = Core::Removal::SIZES
        KINDS = Core::Knowledge.shipped.haul["ground"].transform_values { |told| told["text"] }.freeze

        attr_reader :errors, :units

        def initialize(params, units, patch, today)
          @params, @units, @patch, @today, @errors = params, units, patch, today, {}
        end

        def [](field) = @params[field.to_s].is_a?(String) ? @params[field.to_s].strip : usual[field.to_s].to_s
        def value(field) = self[field]
        def error(field) = errors[field.to_sym]

        # The Core::Work::Haul::Answer; nil until any stems or ground are typed.
        def haul
          return @haul if defined?(@haul)

          stems = SIZES.to_h { |size| [size, number_typed("stems_#{size}").to_f] }
          ground = units.to_si(:area, number_typed("pulled")).to_f
          @haul = if stems.values.any?(&:positive?) || ground.positive?
                    complaining { hauled(stems, ground) }
                  end
        end

        def fruit? = @params["fruit"] == "true"
        def kind = KINDS.key?(self["kind"]) ? self["kind"] : "herbs"

        # The Core::Work::Mulch; nil until area and depth are typed.
        def mulch
          area, depth = units.to_si(:area, number_typed("area")), number_typed("depth")
          return unless area && depth

          @mulch ||= complaining { Core::Work::Mulch.new(area_m2: area, depth_cm: cm(depth)) }
        end

        # Sheets of cardboard below it.
        def sheets
          across, overlap = number_typed("sheet"), number_typed("overlap")
          return unless mulch && across && overlap

          side, lap = units.to_si(:length, across), cm(overlap) / 100
          complaining { mulch.sheets(width_m: side, height_m: side, overlap_m: lap) }
        end

        # [mean cm, numbers of those too thin, m³ that are missing]; nil until depths are typed.
        def sampled
          depths = self["depths"].split(/[;\s]+/).map { |text| Core::Decimal.read(text) }
          return if depths.empty? || mulch.nil?
          return said("depths", nil) unless depths.all? && depths.none?(&:negative?)

          mulch.sampled(depths.map { |depth| cm(depth) })
        end

        def depth_unit = units.us? ? "in" : "cm"
        def volume(cubic_m) = units.bulk(cubic_m)

        private

        def hauled(stems, ground_m2)
          Core::Work::Haul.new(stems:, ground_m2:, kind:, distance_m:, fruit: fruit?, trailer:).answer
        end

        # What was typed of a trailer; nil where nothing was.
        def trailer
          kilos, bulk = number_typed("trailer"), number_typed("trailer_bulk")
          kilos &&= kilos * (units.us? ? 0.45359237 : 1)
          bulk &&= bulk * (units.us? ? 764.554858 : 1000)
          Core::Work::Haul::Trailer.new(kg: kilos, litres: bulk) if kilos || bulk
        end

        def cm(number) = units.us? ? number * 2.54 : number
        def distance_m = units.to_si(:length, number_typed("distance")).to_f

        def usual
          @usual ||= { "distance" => units.us? ? "130" : "40", "sheet" => units.us? ? "4" : "1.2",
                       "overlap" => units.us? ? "6" : "15", "depth" => units.us? ? "4" : "10", **from_patch }
        end

        def from_patch
          return {} unless @patch&.plant

          facts = @patch.facts(@today)
          counted = facts.sizes || { facts.size || "thumb" => facts.stems }
          sizes = counted.compact.to_h { |size, count| ["stems_#{size}", count.to_s] }
          area = @patch.infested && facts.area_m2
          { **sizes, "kind" => Core::Work::Haul.kind_of(@patch.plant),
                     "area" => area && units.from_si(:area, area).round.to_s }.compact
        end
      end
    end
  end
end
