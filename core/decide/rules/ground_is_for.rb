# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        GroundIsFor = Rule.new(
          :ground_is_for,
          about: :any, looks: %i[aim],
          source: "common_practice",
          says: "What the ground is for says which work is done on it."
        ) do |now, removal|
          minded = now.aim && Knowledge.shipped.aims.fetch(now.aim).of(removal) or next
          minded["kind"] == "no" ? no(minded["text"]) : note(minded["text"])
        end
      end
    end
  end
end
