# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # One plant for a notice board: how to know it, what is like it and is left alone, why it matters here, what to
        # do and not to do.
        class NoticePage
          MARKS, ALIKE = 6, 4

          # call: whom to tell, as a person wrote it; nil for the steward.
          def initialize(property, plant, today, call: nil)
            @property, @plant, @today, @call = property, plant, today, call
          end

          def title = @plant.name
          def subtitle = "#{@plant.scientific}, #{@property.name}"
          def parts = @parts ||= [know, alike, matters, doing].reject(&:empty?)

          private

          def library = Core::Knowledge.shipped
          def words = @words ||= Identify::Words.new(@property)

          def know
            Part.new("know", "How to know it") do |part|
              hurts = @plant.hazards.filter_map { |key| library.cautions[key] }
              part.caution(hurts.map { |row| row["text"] }.join(" ")) if hurts.any?
              part.text(@plant.spot["text"], source: @plant.spot["source"])
              part.list(flowers)
            end
          end

          # When it can be seen in flower and in seed here.
          def flowers
            calendar = Core::Season::Phenology.new(@plant, @property.site(@today))
            spans = calendar.phenophases(@property.site(@today).year)
            { flower: "In flower", ripe_seed: "Ripe seed" }.filter_map do |phase, label|
              span = spans.find { |one| one.phase == phase } or next
              ["#{label}: about #{Words.day(span.from)} to #{Words.day(span.to)}.", "memory"]
            end
          end

          def alike
            Part.new("alike", "Like it, and not it") do |part|
              pairs = Core::Identify::Settlement.pairs(@plant, library).first(ALIKE)
              part.list(pairs.map { |pair| ["#{pair.plant.name}: #{pair.text}", pair.source] })
            end
          end

          def matters
            Part.new("matters", "Why it matters") do |part|
              part.text(@plant.matters["text"], source: @plant.matters["source"]) if @plant.matters
              part.text(words.ways_of_spread(@plant), source: @plant.dispersal["source"]) if @plant.dispersal
              here = @property.live_patches.unordered.where(plant_key: @plant.key).exclude(state: "closed").count
              if here.positive?
                part.text("Known here on #{Words.count(here, "patch", "patches")}.",
                          source: "own_records")
              end
            end
          end

          def doing
            Part.new("doing", "What you can do") do |part|
              tell = "Photograph it, note the place, and tell #{@call || "the steward of #{@property.name}"}."
              own = "Pull, cut or spray nothing by yourself. The wrong method can make it spread."
              clean = "Stay on the paths. Clean boots, tools and wheels before you leave."
              part.list([tell, own, clean].map { |line| [line, "common_practice"] })
            end
          end
        end
      end
    end
  end
end
