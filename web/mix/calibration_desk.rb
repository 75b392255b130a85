# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Reads what was measured of a sprayer, one way of three, in the property's units.
      class CalibrationDesk
        include Numbers

        WAYS = { "plot" => "Spray a plot", "nozzle" => "Catch a nozzle", "team" => "Several people",
                 "wanted" => "What flow, what pace?", "wear" => "Is the nozzle worn?" }.freeze
        HANDS = 1..6 # people who spray one patch together
        US = { "ml" => "fl oz", "spacing" => "in", "pace" => "mph", "distance" => "ft", "side" => "ft" }.freeze
        METRIC = { "ml" => "mL", "spacing" => "cm", "pace" => "km/h", "distance" => "m", "side" => "m" }.freeze

        attr_reader :errors, :units

        def initialize(params, units)
          @params, @units, @errors = params, units, {}
          @litres_per_ha = %w[wear wanted].include?(way) ? nil : complaining { measured }
        end

        def way = WAYS.key?(@params["way"]) ? @params["way"] : "plot"

        # Litres on a hectare; nil until enough is typed.
        attr_reader :litres_per_ha

        # [[name, mL as typed]] of each who sprayed the plot.
        def people = HANDS.map { |n| [self["who#{n}"].to_s, "ml#{n}"] }.reject { |_, field| self[field].to_s.empty? }

        # What each puts on the ground, and all together; nil until two are typed.
        def team = @team ||= way == "team" ? complaining { together } : nil

        # [share that it is off, :good, :worn or :blocked]; nil until both are typed.
        def wear
          return unless way == "wear"

          complaining { Core::Mix::Calibration.wear(number_typed("ml") || return, number_typed("rated") || return) }
        end

        # For litres on a hectare that are wanted: {km_h:} from a flow, or {ml_min:} from a pace; nil until enough is
        # typed.
        def wanted
          return unless way == "wanted"

          @wanted ||= complaining { found_for(units.to_si(:rate, number_typed("wanted"))&.*(100)) }
        end

        # km/h, typed or timed.
        def pace
          return complaining { timed } if runs.any?

          number_typed("pace")&.then { |typed| units.us? ? typed * 1.609344 : typed }
        end

        def [](field) = @params[field.to_s].is_a?(String) ? @params[field.to_s].strip : usual[field.to_s]
        def value(field) = self[field]
        def error(field) = errors[field.to_sym]
        def unit(field) = (units.us? ? US : METRIC).fetch(field)

        private

        # A square whose fluid ounces are gallons on an acre, or a hundred square metres.
        def usual = { "side" => units.us? ? "18.45" : "10", "seconds" => "60", "distance" => units.us? ? "100" : "25" }

        def found_for(litres_per_ha)
          spacing_m, ml_min = number_typed("spacing"), number_typed("flow")
          return unless litres_per_ha && spacing_m && (ml_min || pace)

          known = { litres_per_ha:, spacing_m: Core::Mix::Quantity.of(spacing_m, unit("spacing")).to("m") }
          return { ml_min: Core::Mix::Calibration.wanted_flow(**known, km_h: pace) } unless ml_min

          ml_min = Core::Mix::Quantity.of(ml_min, unit("ml")).to("mL")
          { km_h: Core::Mix::Calibration.wanted_pace(**known, ml_min:) }
        end

        def measured
          return team&.mean if way == "team"

          ml = number_typed("ml") or return
          ml_si = Core::Mix::Quantity.of(ml, unit("ml")).to("mL")
          way == "plot" ? on_a_plot(ml_si) : at_a_pace(ml_si)
        end

        def on_a_plot(millilitres)
          side = number_typed("side") or return
          square = Core::Mix::Quantity.of(side, unit("side"))
          Core::Mix::Calibration.plot(ml: millilitres, area_m2: (square * square).to("m²"))
        end

        def together
          typed = people.map { |_, field| number(field) }
          return unless typed.size > 1 && typed.all?

          each = typed.map { |ml| on_a_plot(Core::Mix::Quantity.of(ml, unit("ml")).to("mL")) }
          Core::Mix::Calibration.team(each) if each.all?
        end

        def at_a_pace(millilitres)
          seconds, spacing, km_h = number_typed("seconds"), number_typed("spacing"), pace
          return unless seconds && spacing && km_h

          Core::Mix::Calibration.nozzle(ml: millilitres, seconds:, km_h:,
                                        spacing_m: Core::Mix::Quantity.of(spacing, unit("spacing")).to("m"))
        end

        # Seconds of timed runs, as the stopwatch writes them.
        def runs = self["runs"].to_s.split(/[;\s]+/).filter_map { |text| Core::Decimal.read(text) }

        def timed
          metres = number_typed("distance") or return
          Core::Mix::Calibration.pace(Core::Mix::Quantity.of(metres, unit("distance")).to("m"), runs)
        end
      end
    end
  end
end
