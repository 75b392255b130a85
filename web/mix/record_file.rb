# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Records of herbicide as a table (CSV, RFC 4180), one application a row, in the property's units.
      module RecordFile
        COLUMNS = %w[date began ended place target method applicator certification category licence_expires
                     equipment product registration active amount_unit product_amount second_product
                     second_registration second_amount mix_amount left_over left_over_went area_unit area weather
                     missing first_kept].freeze

        module_function

        def write(rows, units)
          Formats::CsvFile.write(COLUMNS, rows.lazy.map { |row| cells(row, units) })
        end

        def cells(row, units)
          work, told = row.work, row.application
          [told.done_on.iso8601, told.started, told.ended, told.place, told.target, work.removal.name, told.applicator,
           told.certification, told.category, told.expiry&.iso8601, told.equipment, *tank(work, units),
           units.unit(:area), units.from_si(:area, told.area)&.round(2), weather(work, units), row.missing.join(" "),
           told.written_on.iso8601]
        end

        # What was poured, and what was left of it.
        def tank(work, units)
          volume = ->(ml) { units.from_si(:volume, ml)&.round(2) }
          # what is weighed says its unit: "12 oz"
          amount = ->(one) { one&.grams ? units.mass(one.grams) : volume[one&.ml] }
          first, second = work.poured
          [first&.label&.name, first&.label&.registration, work.active_key, units.unit(:volume),
           first ? amount[first] : volume[work.product_ml], second&.label&.name, second&.label&.registration,
           amount[second], volume[work.mix_ml], volume[work.left_over_ml], work.left_over_went]
        end

        # "9 h 14 °C 6 km/h 60 %; 11 h 17 °C 4 km/h (by hand)"
        def weather(work, units) = spots(work.hours_of_application, units)

        # The same of [{ at, temperature, wind_km_h, humidity, by_hand }]; what is not known is left out.
        def spots(rows, units)
          said = { "at" => ->(hour) { "#{hour} h" }, "temperature" => units.method(:temperature),
                   "wind_km_h" => units.method(:wind), "humidity" => ->(part) { "#{part.round} %" },
                   "by_hand" => ->(fields) { "(by hand)" if fields.any? } }
          rows.map do |one|
            found = said.filter_map { |field, words| one[field] && words.call(one[field]) }
            found.empty? ? "–" : found.join(" ")
          end.join("; ")
        end
        private_class_method :cells, :tank
      end
    end
  end
end
