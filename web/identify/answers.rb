# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      # What the identify room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        module_function

        def bench(desk)
          key, settlement = desk.key, desk.key.settlement
          { date: key.date, region: key.region, observed: key.observed, absent: key.absent, cannot_tell: key.skipped,
            candidates: key.candidates.map { |one| candidate(one) }, unlisted: key.unlisted.round(4),
            settled: settlement.settled?, group: settlement.group&.then { |one| group(one, settlement) },
            reasons: settlement.reasons,
            fights: settlement.fights.map { |one| fight(one) }, photograph: settlement.photographs,
            withheld: key.withheld.map(&:key), next_look: key.next_look && look(key.next_look), errors: desk.errors }
        end

        def group(one, settlement)
          { key: one.key, name: one.name, plants: one.plants, probability: settlement.probability_of(one).round(4) }
        end

        def candidate(one)
          { plant: one.plant.key, name: one.plant.name, status: one.plant.status, probability: one.probability.round(4),
            fits: one.fits, against: one.against, unseen: one.unseen }
        end

        def fight(one) = { character: one.character.key, answer: one.answer, speaks_for: one.plant.key }

        def look(look)
          outcomes = look.outcomes.map do |one|
            { state: one.state, chance: one.chance.round(3), leader: one.leader.key,
              probability: one.probability.round(3) }
          end
          { character: look.character.key, gain_bits: look.gain.round(3), outcomes: }
        end

        # duties: [Core::Identify::Law::Duty] of it on the property at hand.
        def plant(plant, site, duties)
          calendar = Core::Season::Phenology.new(plant, site)
          alike = Core::Identify::Settlement.pairs(plant, Core::Knowledge.shipped)
          { key: plant.key, name: plant.name, scientific: plant.scientific, also: plant.also, family: plant.family,
            names: Core::Knowledge.shipped.names.fetch(plant.key, {}).except("source"),
            by_law: duties.map { |duty| { asked: duty.asked, by: duty.by, source: duty.source } },
            status: plant.status, regions: plant.regions.except("source"), dispersal: plant.dispersal&.fetch("by"),
            hazards: plant.hazards, seed_bank_years: plant.seed_bank_years,
            longest_seed_years: plant.longest_seed_years, fragment_years: plant.fragment_years,
            traits: plant.traits, phases: Season::Answers.phases(calendar.phenophases(site.year)),
            methods: plant.removals.keys, look_alikes: alike.map { |pair| pair.plant.key } }
        end

        def duel(duel)
          rows = duel.rows.map do |row|
            { character: row.character.key, deciding: row.deciding, unit: row.character.unit, apart: row.apart.round(2),
              left: row.left, right: row.right, shown_today: row.shown }
          end
          { left: duel.left.key, right: duel.right.key, text: duel.text, source: duel.source, characters: rows }
        end

        def practice(desk)
          answered = desk.answer && { right: desk.right?, plant: desk.plant.key }
          { kind: desk.kind, person: desk.person, options: desk.options, answer: desk.answer,
            right: answered&.fetch(:right), plant: answered&.fetch(:plant),
            share_right: desk.practice.share_right&.round(3), pairs: desk.practice.pairs.first(5).map(&:to_h) }
        end

        def report(report)
          { id: report.id, property: report.property.name, patch: report.patch&.code, seen_on: report.seen_on,
            observed: report.observed, candidates: report.likeliest.map { |plant, chance| likely(plant, chance) },
            latitude: report.latitude, longitude: report.longitude,
            photos: report.photos.map { |one| photo(one) },
            answer: report.answer_key, answered_by: report.answered_by, answered_on: report.answered_on,
            answer_note: report.answer_note }
        end

        def photo(photo) = { file: "/identify/photos/#{photo.id}", **photo.values.slice(:taken_on, :direction) }

        def likely(plant, probability) = { plant: plant.key, scientific: plant.scientific, probability: }

        # A report as a Darwin Core occurrence.
        def occurrence(report)
          { "occurrenceID" => "urn:thistle:report:#{report.id}", "basisOfRecord" => "HumanObservation",
            "eventDate" => report.seen_on, **name_of(report), "recordedBy" => report.recorder,
            "decimalLatitude" => report.latitude&.round(6), "decimalLongitude" => report.longitude&.round(6),
            "geodeticDatum" => report.latitude && "WGS84", "occurrenceRemarks" => seen_in_words(report),
            "occurrenceStatus" => "present" }
        end

        def name_of(report)
          named = report.answer
          chances = report.likeliest.map { |plant, chance| "#{plant.scientific} #{(chance * 100).round} %" }
          { "scientificName" => named&.scientific, "family" => named&.family, "vernacularName" => named&.name,
            "identificationVerificationStatus" => named ? "verified" : "unverified",
            "identifiedBy" => report.answered_by, "dateIdentified" => report.answered_on,
            "identificationRemarks" => chances.join("; ") }
        end

        def seen_in_words(report)
          characters = Core::Knowledge.shipped.characters
          said = report.observed.map { |key, answer| [characters[key], answer] }
          said.map { |character, answer| "#{character.label.downcase}: #{character.say(answer)}" }.join("; ")
        end
      end
    end
  end
end
