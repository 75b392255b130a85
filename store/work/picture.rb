# frozen_string_literal: true

module Thistle
  module Store
    # Model: a photograph of a patch, before or after work, without anything in it but the picture.
    class Picture < Sequel::Model(:pictures)
      many_to_one :patch, class: "Thistle::Store::Patch"

      MOMENTS = { "before" => "before", "after" => "after" }.freeze
      LIGHT = %i[id patch_id work_day_id moment taken_on filename media deleted_at created_at].freeze

      include Live

      dataset_module do
        # Without the bytes, which are most of a row.
        def light = select(*LIGHT)
      end

      # Keeps a Formats::Image; its place and direction only where that is wanted.
      def self.keep(patch, image, moment:, today:, place: false, work_day: nil)
        facts = place ? %i[latitude longitude direction].to_h { |fact| [fact, image.public_send(fact)] } : {}
        create(patch_id: patch.id, work_day_id: work_day&.id, moment:, filename: image.filename, media: image.media,
               taken_on: image.taken_on || today, bytes: Sequel.blob(image.public_bytes), **facts)
      end

      # Keeps the photograph of a look. Answers [latitude, longitude] that it knows itself, [] for none, whether or not
      # they are kept.
      def self.of_look(check, image, place:, today:)
        keep(check.patch, image, moment: "look", today:, place:).update(check_id: check.id)
        [image.latitude, image.longitude].compact.then { |known| known.size == 2 ? known : [] }
      end

      # The newest of a patch, without bytes; nil for none.
      def self.last_of(patch) = live.where(patch_id: patch.id).light.order(:taken_on, :id).last

      # All of a patch, the oldest first, without bytes.
      def self.every(patch) = live.where(patch_id: patch.id).light.order(:taken_on, :id).limit(200).all

      # [[before, after]] of a patch, the newest first, without bytes: each after beside the last before it, nil where
      # there is none.
      def self.pairs(patch)
        pictures = live.where(patch_id: patch.id).exclude(moment: "look").light.order(:taken_on, :id).all
        pictures.each_with_object([]) do |one, found|
          if one.moment == "before" then found << [one, nil]
          elsif found.any? && found.last.last.nil? then found.last[1] = one
          else found << [nil, one]
          end
        end.reverse
      end

      def moment_said = { "before" => "before the work", "after" => "after the work" }.fetch(moment, "at a check")
      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)
    end
  end
end
