# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What a person says of a patch before asking what to do: the plant, the stems, the ground, who is here.
      # labels: what products' labels say of weather, {kind of work => {limit => value}} (Season::Limits#under).
      # zones: the ground it touches or stands too near to, [Survey::Nearby]; nil where none is mapped.
      # Soil and stage are nil unless pinned; then they hold for `date` and the calendar goes on from them.
      Choices = Value.define(:plant, :settled, :date, :size, :stage, :soil, :stance, :licensed, :aquatic_label,
                             :water_m, :slope, :natives_near, :cover, :freed_on, :stems, :area_m2, :new_here, :reported,
                             :zones, :labels)

      # What follows from the choices alone, and the words for them.
      class Choices
        NEAR_WATER_M = 10.0 # planning value: closer counts as at the water (memory); the label may ask for more
        STANCES = { "none" => "none", "stem" => "stem only", "any" => "any labelled use" }.freeze
        SLOPES = %w[flat slope steep].freeze
        SIZE_LABELS = { "seedling" => "seedling", "pencil" => "pencil", "thumb" => "thumb", "wrist" => "wrist",
                        "wider" => "wider" }.freeze

        # Seedlings and pencil-thick stems of woody plants bear no seed (memory), unless someone saw it.
        def bears_seed?
          %i[green_seed ripe_seed].include?(stage) || !(plant.woody? && %w[seedling pencil].include?(size))
        end

        # The plant's calendar at a site, moved by the pinned stage.
        def calendar(site)
          plain = Season::Phenology.new(plant, site)
          stage ? plain.seen(stage, date) : plain
        end
      end
    end
  end
end
