# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # A weather file on its way in: its columns beside ours, and what would be taken.
      class WeatherDesk
        MOST = 24 * 1024 * 1024
        SHOWN = 4 # rows of the file

        attr_reader :record

        # Keeps a file as a draft with its columns guessed. Raises BadInput when it is no table.
        def self.draft(property, filename, bytes)
          guess = Core::Apart.call { Core::Season::WeatherFile.guess(*Formats::WeatherTable.read(bytes)) }
          Store::WeatherFile.create(property_id: property.id, filename:, bytes: Sequel.blob(bytes),
                                    mapping: JSON.generate(guess))
        end

        def initialize(record)
          @record = record
        end

        # What was chosen on the page, over what was guessed.
        def map(params)
          chosen = headers.each_with_index.to_h do |header, n|
            [header, choice(params["column_#{n}"].to_s, params["unit_#{n}"].to_s)]
          end
          zone = Core::Season::Stamps::ZONES.key?(params["zone"]) ? params["zone"] : record.zone
          record.update(mapping: JSON.generate(chosen), zone:)
          @file = nil
        end

        def headers = table.first
        def sample(header) = table.last.first(SHOWN).map { |row| row[header].to_s[0, 24] }
        def mapping = record.columns

        def file
          @file ||= Core::Season::WeatherFile.new(headers, table.last, mapping,
                                                  clock: record.property.clock, zone: record.zone)
        end

        def fault = file.fault
        def report = @report ||= file.report
        def take = record.take(file)

        private

        def table = @table ||= Formats::WeatherTable.read(record.bytes)

        def choice(key, unit)
          gauge = Core::Season::Gauge::BY_KEY[key.to_sym] or return
          [key, gauge.units.key?(unit) ? unit : gauge.units.keys.first, "chosen"]
        end
      end
    end
  end
end
