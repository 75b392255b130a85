# frozen_string_literal: true

module Thistle
  module Web
    module Today
      # Finds plants by any of their names, misspelled too, natives to plant, patches by code or plant, and terms of the
      # glossary.
      class Finder
        attr_reader :query

        # places: ids of the properties to look on.
        def initialize(query, places)
          @query, @places = query.strip, places
        end

        def plants = @plants ||= Store::PlantNames.find(query).map { |key| Core::Knowledge.shipped.plant(key) }

        # Natives that are only planted: what is told from others is among the plants.
        def natives
          library = Core::Knowledge.shipped
          @natives ||= library.natives_named(query).reject { |one| library.plants.key?(one.key) }
        end

        def patches
          return [] if query.empty?

          @patches ||= (coded + named).uniq(&:id).first(MOST)
        end

        # [Glossary::Entry] with what was typed in their terms.
        def terms
          return [] if query.size < 3

          Glossary.parts.values.flatten.select { |entry| entry.terms.downcase.include?(query.downcase) }
        end

        def nothing? = [plants, natives, patches, terms].all?(&:empty?)

        MOST = 50

        private

        def named
          Store::Patch.live.where(plant_key: plants.map(&:key), property_id: @places).order(:plant_key,
                                                                                            :code).limit(MOST).all
        end

        # Patches whose code begins as typed, in capitals or not, or whose number is what was typed: all through the
        # index of codes.
        def coded
          wanted = [query, query.upcase].uniq.map { |text| begins_as(text[0, 40]) }
          wanted << { code: numbered(query.to_i) } if query.match?(/\A\d{1,9}\z/)
          @places.flat_map do |property_id|
            wanted.flat_map { |which| Store::Patch.live.where(property_id:).where(which).order(:code).limit(MOST).all }
          end
        end

        def numbered(number)
          Store::Property.where(id: @places).select_map(:prefix).map { |prefix| format("%s-%02d", prefix, number) }
        end

        def begins_as(text) = (Sequel[:code] >= text) & (Sequel[:code] < "#{text}\u{10FFFF}")
      end
    end
  end
end
