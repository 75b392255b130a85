# frozen_string_literal: true

module Thistle
  module Web
    # Core's answers as plain data for JSON, units in the names. docs/api.md describes each.
    module Answers
      module_function

      def identify(key)
        settlement = key.settlement
        { date: key.date, region: key.region, observed: key.observed, absent: key.absent, cannot_tell: key.skipped,
          candidates: key.candidates.map { |c| candidate(c) }, unlisted: key.unlisted.round(4), settled: settlement.settled?,
          reasons: settlement.reasons,
          fights: settlement.fights.map { |f| { character: f.character.key, answer: f.answer, speaks_for: f.plant.key } },
          photograph: settlement.photographs, withheld: key.withheld.map(&:key), next_look: key.next_look && look(key.next_look) }
      end

      def candidate(c)
        { plant: c.plant.key, name: c.plant.name, status: c.plant.status, probability: c.probability.round(4),
          fits: c.fits, against: c.against, unseen: c.unseen }
      end

      def look(look)
        outcomes = look.outcomes.map do |o|
          { state: o.state, chance: o.chance.round(3), leader: o.leader.key, probability: o.probability.round(3) }
        end
        { character: look.character.key, gain_bits: look.gain.round(3), outcomes: }
      end

      def report(report)
        { id: report.id, property: report.property.name, patch: report.patch&.code, seen_on: report.seen_on, observed: report.observed,
          candidates: report.likeliest.map { |plant, p| { plant: plant.key, scientific: plant.scientific, probability: p } },
          latitude: report.latitude, longitude: report.longitude,
          photos: report.photos.map { |p| { file: "/identify/photos/#{p.id}", taken_on: p.taken_on } },
          answer: report.answer_key, answered_by: report.answered_by, answered_on: report.answered_on, answer_note: report.answer_note }
      end

      # A report as a Darwin Core occurrence.
      def occurrence(report)
        named = report.answer
        { "occurrenceID" => "urn:thistle:report:#{report.id}", "basisOfRecord" => "HumanObservation", "eventDate" => report.seen_on,
          "scientificName" => named&.scientific, "family" => named&.family, "vernacularName" => named&.name,
          "identificationVerificationStatus" => named ? "verified" : "unverified", "identifiedBy" => report.answered_by,
          "dateIdentified" => report.answered_on,
          "identificationRemarks" => report.likeliest.map { |plant, p| "#{plant.scientific} #{(p * 100).round} %" }.join("; "),
          "recordedBy" => report.recorder, "decimalLatitude" => report.latitude&.round(6), "decimalLongitude" => report.longitude&.round(6),
          "geodeticDatum" => report.latitude && "WGS84", "occurrenceRemarks" => seen_in_words(report), "occurrenceStatus" => "present" }
      end

      def seen_in_words(report)
        characters = Core::Knowledge.shipped.characters
        report.observed.map { |key, answer| "#{characters[key].label.downcase}: #{characters[key].say(answer)}" }.join("; ")
      end

      def duel(duel)
        rows = duel.rows.map do |r|
          { character: r.character.key, deciding: r.deciding, unit: r.character.unit, apart: r.apart.round(2), left: r.left, right: r.right }
        end
        { left: duel.left.key, right: duel.right.key, text: duel.text, source: duel.source, characters: rows }
      end

      def plant(plant, site)
        { key: plant.key, name: plant.name, scientific: plant.scientific, also: plant.also, family: plant.family, status: plant.status,
          regions: plant.regions.except("source"), dispersal: plant.dispersal&.fetch("by"), hazards: plant.hazards,
          seed_bank_years: plant.seed_bank_years, fragment_years: plant.fragment_years, traits: plant.traits,
          phases: phases(Core::Season::Phenology.new(plant, site).phenophases(site.year)),
          methods: plant.removals.keys, look_alikes: Core::Identify::Settlement.pairs(plant, Core::Knowledge.shipped).map { |pair| pair.plant.key } }
      end

      def phases(spans)
        spans.map { |s| { phase: s.phase, from: s.from, to: s.to, early: s.early, late: s.late, moved_days: s.moved, source: s.source } }
      end

      def windows(windows)
        windows.to_h do |removal, spans|
          [removal.key, spans.map do |w|
            { from: w.from, to: w.to, opens: w.opens&.said, closes: w.closes&.said, fit_days: w.held&.days, years: w.held&.years }
          end]
        end
      end

      # Each hour ahead with what stands against each kind of work.
      def fits(site, property)
        fits = Core::Knowledge.shipped.fits.keys.to_h { |key| [key, site.fit(key, property.label_limits)] }
        hours = site.hours.each_with_index.map do |hour, n|
          { date: hour.date, at: hour.at, temperature_c: hour.temperature, rain_mm: hour.rain, wind_km_h: hour.wind, gust_km_h: hour.gust&.round(1),
            humidity_percent: hour.humidity, delta_t_c: hour.delta_t&.round(1), soil: hour.soil,
            against: fits.transform_values { |fit| fit.hours[n].against.map(&:key) } }
        end
        { fit: fits.transform_values { |fit| fit.stretches.map { |s| { date: s.date, from_hour: s.from, to_hour: s.to } } }, hours: }
      end

      def weather(site, property)
        { from: property.feed, climate: site.climate.key, soil_texture: site.texture,
          days: ((site.today - 29)..site.horizon).map do |date|
            day, ground, flow = site.day(date), site.ground(date), site.flow(date)
            { date:, standing: day.standing, tmin_c: day.tmin, tmax_c: day.tmax, rain_mm: day.rain, wind_km_h: day.wind, soil: ground.kind,
              fill: ground.fill.round(3), evapotranspiration_mm: flow&.evapotranspiration&.round(2), drainage_mm: flow&.drainage&.round(2),
              runoff_mm: flow&.runoff&.round(2) }
          end }
      end

      def weather_file(record)
        { filename: record.filename, taken: record.taken?, columns: record.columns, report: record.told }
      end

      def patch(patch)
        patch_size(patch).merge(
          treatments: patch.treatments.map { |t| treatment(t) }, checks: patch.checks.map { |c| check(c) },
          tasks: patch.open_tasks.map { |t| task(t) }
        )
      end

      def patch_size(patch)
        infested, how = patch.infested
        { id: patch.id, code: patch.code, plant: patch.plant_key, state: patch.state, seen_on: patch.seen_on,
          geometry: JSON.parse(patch.geometry), gross_m2: patch.gross_m2&.round(2), length_m: patch.length_m&.round(2),
          infested_m2: infested&.round(2), infested_is: how,
          **patch.values.slice(:cover_class, :cover_percent, :plants, :stems, :stem_size, :density_m2, :height_cm, :stage, :footing, :aim),
          stems_by_size: patch.amount.stems, parted_from: patch.parent&.code, versions: patch.versions.map { |version| version(version) },
          **patch_place(patch), lock_version: patch.lock_version }
      end

      def patch_place(patch)
        { water_m: patch.water_m&.round(1), slope_degrees: patch.slope_deg&.round(1), aspect_degrees: patch.aspect_deg&.round,
          zones: patch.zones_in_reach&.map(&:to_h) || [] }
      end

      def version(v) = { from: v.from, to: v.to, gross_m2: v.gross_m2&.round(2), infested_m2: v.infested_m2&.round(2) }

      def zone(zone)
        { id: zone.id, kind: zone.kind, name: zone.name, keep_m: zone.distance_kept, geometry: zone.shape.published }
      end

      def layer(layer) = { id: layer.id, kind: layer.kind, name: layer.name, shown: layer.shown, **layer.details.transform_keys(&:to_sym) }

      def arrival(arrival)
        rows = arrival.arrival_rows_dataset.limit(5000).map { |row| row.values.slice(:row, :name, :verdict, :reason, :patch_id) }
        { filename: arrival.filename, format: arrival.format, status: arrival.status, undone: !arrival.undone_at.nil?, total: arrival.total,
          counts: arrival.counts, columns: arrival.columns, rows: }
      end

      def totals(totals, today)
        rows = ->(list) { list.map { |row| row.to_h.transform_values { |v| v.is_a?(Float) ? v.round(2) : v } } }
        { whole: rows[[totals.whole]].first, by_plant: rows[totals.by_plant], by_state: rows[totals.by_state], by_zone: rows[totals.by_zone],
          by_year: rows[totals.by_year(today)] }
      end

      def treatment(t)
        { done_on: t.done_on, method: t.method_key, plants: t.plants_done, stems: t.stems_done, area_m2: t.area_m2, product_ml: t.product_ml,
          seed_fall: t.seed_fall }
      end

      def check(c)
        { checked_on: c.checked_on, resprouts: c.resprouts, missed: c.missed, seedlings: c.seedlings,
          control_percent: c.control&.percent&.round(1), seed_fall: c.seed_fall }
      end

      def task(task)
        { kind: task.kind, due_on: task.due_on, reason: task.reason, source: task.source, happened_on: task.happened_on,
          waits_for: task.event && JSON.parse(task.event) }.compact
      end

      def replant(shortlist, sowing)
        natives = shortlist.matches.map do |m|
          windows = sowing.windows(m.plant.replant["plant_in"]).first(2)
          { native: m.plant.key, name: m.plant.name, takes_over: m.taken_over, windows: windows.map { |w| w.to_h.except(:open) } }
        end
        { light: shortlist.light, moisture: shortlist.moisture, jobs: shortlist.jobs, natives: }
      end
    end
  end
end
