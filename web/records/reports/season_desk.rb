# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # Reads what a season's report is asked for: from, to, plants, all properties or the one at hand, with the year
        # before beside, and what an hour of a volunteer is worth to whoever pays.
        class SeasonDesk
          MOST_DAYS = 3660
          WORTH = 0..10_000

          attr_reader :errors, :property

          def initialize(params, property, properties, today)
            @params, @property, @properties, @today = params, property, properties, today
            @errors = {}
            range
            worth
          end

          def ok? = errors.empty?
          def from = @params["from"] || default.first.iso8601
          def to = @params["to"] || default.last.iso8601

          # The days: this year so far, unless others are asked for.
          def range
            @range ||= begin
              first, last = day("from"), day("to")
              errors[:to] = "is before the first day" if first && last && last < first
              errors[:to] = "is more than ten years after the first day" if first && last && last - first > MOST_DAYS
              errors.empty? ? (first || default.first)..(last || default.last) : default
            end
          end

          # Keys of the plants asked for; nil for all.
          def plants
            keys = Array(@params["plants"]).grep(String) & Core::Knowledge.shipped.plants.keys
            keys.empty? ? nil : keys
          end

          # Plants that have stood here, by name.
          def known
            keys = Store::Patch.live.unordered.where(property_id: properties.map(&:id)).exclude(plant_key: nil)
                               .distinct.select_map(:plant_key)
            (keys | plants.to_a).map { |key| Core::Knowledge.shipped.plant(key) }.sort_by(&:name)
          end

          def whole? = @params["whole"] == "1"
          def compared? = @params["compared"] == "1"
          def properties = whole? ? @properties : [property]
          def name = whole? ? "all properties" : property.name

          # Money that an hour of a volunteer counts for; nil where nobody said.
          def worth
            return @worth if defined?(@worth)

            text = @params["worth"].to_s.strip
            @worth = text.empty? ? nil : Core::Decimal.read(text, comma: property.measures.comma)
            errors[:worth] = "is a sum from 0 to 10 000" if !text.empty? && !(@worth && WORTH.cover?(@worth))
            @worth
          end

          def figures = @figures ||= Store::SeasonFigures.new(properties, range, @today, plants:)
          def before = compared? ? figures.year_before : nil

          # The address of the same report.
          def query
            asked = { "from" => range.first.iso8601, "to" => range.last.iso8601, "plants[]" => plants,
                      "whole" => whole? ? "1" : nil, "compared" => compared? ? "1" : nil, "worth" => @params["worth"] }
            Rack::Utils.build_query(asked.reject { |_, value| value.nil? || value == "" })
          end

          private

          def default = Date.new(@today.year, 1, 1)..@today

          def day(name)
            text = @params[name].to_s.strip
            return if text.empty?

            Date.strptime(text, "%Y-%m-%d").tap { |date| raise Date::Error unless date.year.between?(1900, 2200) }
          rescue Date::Error
            errors[name.to_sym] = "is not a day, such as 2026-05-12"
            nil
          end
        end
      end
    end
  end
end
