# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # A property as Darwin Core events: a patch, each sight, treatment and check of it, each search, with what was
      # there, what was not, and what was measured. Ids are unique beyond this copy: "urn:thistle:COPY:check:12".
      class Events
        PAGE = 500 # patches in memory at a time
        # Measured of a record: {column => [what, unit]}.
        SEEN = { gross_m2: ["gross area", "m2"], infested_m2: ["infested area", "m2"], cover_percent: ["cover", "%"],
                 plants: %w[plants individuals], stems: %w[stems stems], height_cm: %w[height cm] }.freeze
        WORKED = { hours: ["hours each", "h"], crew_size: %w[people individuals],
                   plants_done: ["plants done", "individuals"],
                   stems_done: ["stems done", "stems"], area_m2: ["ground treated", "m2"],
                   product_ml: ["herbicide product", "mL"], mix_ml: ["ready mix", "mL"] }.freeze
        CHECKED = { resprouts: %w[resprouts individuals], missed: %w[missed individuals],
                    suckers: %w[suckers individuals], seedlings: %w[seedlings individuals] }.freeze

        def initialize(property)
          @property, @copy = property, Store::Bundle.copy
        end

        # Rows of the three tables, [{term => value}], each once and in order.
        def events
          patches.flat_map { |patch| of_patch(patch).map(&:first) }.chain(searches.map { |one| searched(one) })
        end

        def occurrences
          patches.flat_map { |patch| of_patch(patch).filter_map { |_, found, _| found } }
                 .chain(searches.flat_map { |one| sought(one) })
        end

        def measurements = patches.flat_map { |patch| of_patch(patch).flat_map { |_, _, measured| measured } }

        private

        def urn(kind, id) = "urn:thistle:#{@copy}:#{kind}:#{id}"

        def patches
          Enumerator.new do |all|
            last = 0
            until (page = page(last)).empty?
              page.each { |patch| all << patch }
              last = page.last.id
            end
          end.lazy
        end

        def page(last)
          @property.live_patches.unordered.where(Sequel[:id] > last).order(:id).limit(PAGE)
                   .eager(:observations, :treatments, :checks).all
        end

        def searches = @property.searches

        # [[event, its occurrence or nil, its measurements]]: the patch itself first, which tells all that is known of
        # it.
        def of_patch(patch)
          [whole(patch), *patch.observations.map { |one| sight(patch, one) },
           *patch.treatments.map { |one| worked(patch, one) }, *patch.checks.map { |one| checked(patch, one) }]
        end

        def whole(patch)
          id = urn("patch", patch.id)
          event = { "eventID" => id, "eventType" => "patch", "eventDate" => patch.seen_on, **located(patch.shape),
                    "locality" => @property.name, "eventRemarks" => patch.note }
          found = named(patch.plant).merge(
            "eventID" => id, "occurrenceID" => "#{id}:occurrence", "organismID" => id, "eventDate" => patch.seen_on,
            "occurrenceStatus" => "present",
            "identificationVerificationStatus" => patch.settled? ? "verified" : "unverified",
            "organismQuantity" => patch.plants || patch.stems,
            "organismQuantityType" => patch.plants ? "individuals" : patch.stems && "stems",
            "dynamicProperties" => JSON.generate(Core::Survey::Columns.of(patch).compact),
            "occurrenceRemarks" => patch.note
          )
          [event, found, []]
        end

        def sight(patch, one)
          event = event("observation", patch, one, one.people)
          there = occurrence(event, patch, one.plant_key, "present")
          [event, there, measured(event, one, SEEN)]
        end

        def worked(patch, one)
          event = event("treatment", patch, one, one.who(names))
          [event.merge("samplingProtocol" => one.removal.name), nil, measured(event, one, WORKED)]
        end

        # Clean only where anything alive would have shown; else nothing is said of what is there.
        def checked(patch, one)
          event = event("check", patch, one, one.people)
          status = if one.live? then "present"
                   elsif patch.plant && patch.shows?(one.checked_on) then "absent"
                   end
          there = occurrence(event, patch, patch.plant_key, status) if status
          [event, there, measured(event, one, CHECKED) + control(event, one)]
        end

        def control(event, one)
          share = one.control or return []
          [measurement(event, "control", share.percent.round(1), "%",
                       "95 % range #{share.low.round(1)} to #{share.high.round(1)}")]
        end

        def names = @names ||= Store::Person.names

        def event(kind, patch, record, people)
          { "eventID" => urn(kind, record.id), "parentEventID" => urn("patch", patch.id), "eventType" => kind,
            "eventDate" => record.on, **placed(patch.shape), "locality" => @property.name, "recordedBy" => people,
            "eventRemarks" => record.note }
        end

        def occurrence(event, patch, plant_key, status)
          named(plant_key && Core::Knowledge.shipped.plant(plant_key)).merge(
            event.slice("eventID", "eventDate", "recordedBy"), "occurrenceID" => "#{event["eventID"]}:occurrence",
                                                                "organismID" => urn("patch", patch.id),
                                                                "occurrenceStatus" => status
          )
        end

        def measured(event, record, what)
          what.filter_map do |column, (name, unit)|
            value = record[column]
            measurement(event, name, value, unit) if value
          end
        end

        def measurement(event, name, value, unit, remarks = nil)
          { "eventID" => event["eventID"], "measurementID" => "#{event["eventID"]}:#{name.tr(" ", "_")}",
            "measurementType" => name, "measurementValue" => value, "measurementUnit" => unit,
            "measurementDeterminedDate" => event["eventDate"], "measurementRemarks" => remarks }
        end

        def searched(one)
          effort = [one.length_m && "#{one.length_m.round} m", "#{one.area_m2.round} m2 searched",
                    one.minutes && "#{one.minutes} min"]
          { "eventID" => urn("search", one.id), "eventType" => "search", "eventDate" => one.searched_on,
            **located(one.seen_ground), "locality" => @property.name, "recordedBy" => one.people,
            "samplingProtocol" => one.sight_m ? "walk, #{one.sight_m.round} m in sight" : "area searched",
            "samplingEffort" => effort.compact.join(", "), "sampleSizeValue" => one.area_m2.round,
            "sampleSizeUnit" => "m2", "eventRemarks" => one.note }
        end

        # What was looked for on a search and was not there; what was, is a patch of its own.
        def sought(one)
          one.absences.map do |key|
            plant = Core::Knowledge.shipped.plant(key)
            named(plant).merge("eventID" => urn("search", one.id), "eventDate" => one.searched_on,
                               "occurrenceID" => "#{urn("search", one.id)}:#{key}", "occurrenceStatus" => "absent",
                               "recordedBy" => one.people,
                               "dynamicProperties" => JSON.generate(plant: plant.name, seen_on: one.searched_on))
          end
        end

        def named(plant)
          { "basisOfRecord" => "HumanObservation", "scientificName" => plant&.scientific, "family" => plant&.family,
            "vernacularName" => plant&.name }
        end

        def placed(shape)
          lon, lat = shape.centre
          { "decimalLatitude" => lat.round(7), "decimalLongitude" => lon.round(7), "geodeticDatum" => "WGS84" }
        end

        def located(shape)
          { **placed(shape), "footprintSRS" => "EPSG:4326", "footprintWKT" => Formats::Table.wkt(shape.published) }
        end
      end
    end
  end
end
