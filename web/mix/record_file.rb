# frozen_string_literal: true

require "csv"

module Thistle
  module Web
    module Mix
      # Records of herbicide as a table (CSV, RFC 4180), one application a row, in the property's units.
      module RecordFile
        COLUMNS = %w[date began ended place target method product registration active amount_unit product_amount
                     mix_amount area_unit area applicator certification category licence_expires equipment left_over
                     left_over_went weather missing first_kept].freeze

        module_function

        def write(rows, units)
          CSV.generate(row_sep: "\r\n") do |csv|
            csv << COLUMNS
            rows.each { |row| csv << cells(row, units).map { |cell| Formats::Inert.write(cell) } }
          end
        end

        def cells(row, units)
          work, told = row.work, row.application
          volume = ->(ml) { units.from_si(:volume, ml)&.round(2) }
          [told.done_on.iso8601, told.started, told.ended, told.place, told.target, work.removal.name, told.product,
           told.registration, work.active_key, units.unit(:volume), volume[told.amount], volume[told.mix],
           units.unit(:area), units.from_si(:area, told.area)&.round(2), told.applicator, told.certification,
           told.category, told.expiry&.iso8601, told.equipment, volume[told.left_over], work.left_over_went,
           weather(work, units), row.missing.join(" "), told.written_on.iso8601]
        end

        # "9 h 14 °C 6 km/h 60 %; …"
        def weather(work, units)
          work.hours_of_application.map do |one|
            temperature, wind = units.temperature(one["temperature"]), units.wind(one["wind_km_h"])
            "#{one["at"]} h #{temperature} #{wind} #{one["humidity"]} %"
          end.join("; ")
        end
        private_class_method :cells
      end
    end
  end
end
