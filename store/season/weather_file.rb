# frozen_string_literal: true

module Thistle
  module Store
    # Model: a file of a station's weather: kept as a draft until its columns are agreed on, then taken as days and
    # hours. Where files overlap, the later one counts; taking one back leaves the others.
    class WeatherFile < Sequel::Model(:weather_files)
      many_to_one :property, class: "Thistle::Store::Property"

      DAY = %i[tmin tmax rain wind humidity gust radiation].freeze
      HOUR = %i[temperature rain wind humidity gust].freeze

      dataset_module do
        def taken = exclude(taken_at: nil).reverse(:id)
      end

      def taken? = !taken_at.nil?
      def columns = JSON.parse(mapping)
      def told = JSON.parse(report || "{}", symbolize_names: true)

      # Takes a Core::Season::WeatherFile's days and hours in.
      def take(file)
        days = file.days.map { |day| { property_id:, file_id: id, date: day.date, **day.to_h.slice(*DAY) } }
        hours = file.hours.select { |hour| hour.values[:temperature] }
                    .map do |hour|
                      { property_id:, file_id: id, at: hour.at, **HOUR.to_h { |key| [key, hour.values[key]] } }
                    end
        db.transaction do
          Bulk.insert(:weather_days, days)
          Bulk.insert(:weather_hours, hours)
          update(taken_at: Time.now.utc, bytes: nil, report: JSON.generate(file.report.to_h))
          property.update(feed: "own")
          property.year_changed
        end
      end

      # Takes it out again; without any file left the property falls back to broad values.
      def take_back
        db.transaction do
          delete
          property.update(feed: "broad") if property.feed == "own" && WeatherFile.taken.where(property_id:).empty?
          property.year_changed
        end
      end
    end
  end
end
