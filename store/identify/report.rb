# frozen_string_literal: true

module Thistle
  module Store
    # Model: a plant that could not be settled, written up for a specialist: what was seen, what it may be, where, with
    # photographs. The answer, when it comes, settles the observation.
    class Report < Sequel::Model(:reports)
      many_to_one :property, class: "Thistle::Store::Property"
      many_to_one :patch, class: "Thistle::Store::Patch"
      # Without their bytes, which are most of them.
      one_to_many :photos, class: "Thistle::Store::Photo", order: :id,
                           select: %i[id report_id filename media taken_on latitude longitude direction]

      # From a Key; the patch keeps an unsettled observation beside it.
      def self.write(property, key, patch: nil)
        db.transaction do
          Observation.record(patch, key, note: "Sent to a specialist") if patch
          lon, lat = patch&.shape&.centre
          likely = ->(one) { { plant: one.plant.key, probability: one.probability.round(4) } }
          create(property_id: property.id, patch_id: patch&.id, seen_on: key.date, latitude: lat, longitude: lon,
                 looks: JSON.generate(observed: key.observed, absent: key.absent, skipped: key.skipped),
                 candidates: JSON.generate(key.candidates.first(5).map(&likely)))
        end
      end

      def observed = JSON.parse(looks)["observed"]

      # The same looks, weighed again.
      def key(site)
        absent, skipped = JSON.parse(looks).values_at("absent", "skipped")
        Core::Identify::Key.new(observed, site:, date: seen_on, region: property.region, absent:, skipped:)
      end

      def likeliest
        JSON.parse(candidates).map { |row| [Core::Knowledge.shipped.plant(row["plant"]), row["probability"]] }
      end

      def answer = answer_key && Core::Knowledge.shipped.plant(answer_key)
      def open? = answer_key.nil?

      # The picture of a photograph, without anything beside it; one that knows where it was taken places a report that
      # has no place yet. Where the recorder does not want that (place: false), nothing of where and when is kept.
      def attach(image, place: true)
        bytes = Sequel.blob(image.public_bytes) # what the camera wrote beside the picture is never kept
        facts = place ? %i[taken_on latitude longitude direction].to_h { |fact| [fact, image.public_send(fact)] } : {}
        db.transaction do
          update(facts.slice(:latitude, :longitude)) if latitude.nil? && facts[:latitude]
          Photo.create(report_id: id, filename: image.filename, media: image.media, bytes:, **facts)
        end
      end

      # What the specialist said; settles the patch under that name.
      def settle(**fields)
        db.transaction do
          update(**fields)
          next unless patch

          patch.update(plant_key: answer_key)
          Observation.told(patch, seen_on: answered_on, plant_key: answer_key, settled: true,
                                  note: "Named by #{answered_by}")
        end
      end
    end
  end
end
