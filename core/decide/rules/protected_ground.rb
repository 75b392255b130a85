# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        # Zones drawn on the map: what each kind forbids is in knowledge/zones.yml.
        ProtectedGround = Rule.new(
          :protected_ground,
          about: :any, looks: %i[zones aquatic_label],
          source: "common_practice", force: :legal,
          says: "Work that a zone forbids is not done in the zone, or within its distance."
        ) do |now, removal|
          near = now.zones&.find do |zone|
            kind = Knowledge.shipped.zone_kinds.fetch(zone.kind)
            kind.forbids?(removal) && !(kind.unless == "aquatic_label" && now.for_water?(removal))
          end
          next unless near

          kind = Knowledge.shipped.zone_kinds.fetch(near.kind)
          away = "It is {length:#{near.distance_m.round}} from, and {length:#{near.keep_m.round}} are kept from,"
          where = near.touches? ? "It stands on" : away
          no "#{where} #{near.name ? "“#{near.name}”, #{kind.label}" : "mapped ground: #{kind.label}"}: #{kind.text}."
        end
      end
    end
  end
end
