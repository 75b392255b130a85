# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # A patch: its shape, its plant, how much of it. Adds one, or changes one that nobody changed meanwhile.
        class Patch < Drawn
          class Fields < Form::Contract
            params do
              required(:geometry).filled(:string)
              required(:seen_on).filled(:date)
              optional(:plant_key).filled(:string)
              optional(:cover_class).filled(:integer, gteq?: 1, lteq?: 6)
              optional(:plants).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              optional(:aim).filled(:string, included_in?: Core::Knowledge.shipped.aims.keys)
              optional(:stems).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              optional(:stem_size).filled(:string, included_in?: Core::Removal::SIZES)
              optional(:width).filled(:float, gt?: 0, lteq?: Measure::MOST)
              optional(:radius).filled(:float, gt?: 0, lteq?: Measure::MOST)
              optional(:infested).filled(:float, gt?: 0)
              optional(:slope).filled(:string, included_in?: Core::Decide::Facts::SLOPES)
              optional(:footing).filled(:string, included_in?: Core::Decide::Facts::FOOTINGS)
              optional(:light).filled(:string, included_in?: Core::Replant::Native::LIGHTS.keys)
              optional(:moisture).filled(:string, included_in?: Core::Replant::Native::MOISTURES.keys)
              optional(:natives_near).filled(:bool)
              optional(:note).filled(:string, max_size?: 2000)
              optional(:lock_version).filled(:integer)
            end
            rule(:seen_on).validate(:day_of_record)
            rule(:seen_on) { key.failure("is before 1900") if value && value.year < 1900 }
            rule(:plant_key) do
              key.failure("is not a plant in the library") if value && !Core::Knowledge.shipped.plants.key?(value)
            end
          end

          # A form filled from a patch.
          def self.of(patch, units)
            typed = patch.values.slice(:geometry, :plant_key, :cover_class, :plants, :stems, :stem_size, :aim, :slope,
                                       :footing,
                                       :light, :moisture, :natives_near,
                                       :note, :lock_version)
            typed.merge!(seen_on: patch.seen_on.iso8601, width: units.from_si(:length, patch.width_m)&.round(1),
                         radius: units.from_si(:length, patch.radius_m)&.round(1),
                         infested: units.from_si(:area, patch.infested_m2)&.round(1))
            new(typed.compact.transform_values(&:to_s), units:, today: Date.new(9999))
          end

          attr_reader :theirs

          def outdated? = !theirs.nil?

          KEPT = %i[plant_key seen_on cover_class plants stems stem_size aim slope footing light moisture natives_near
                    note].freeze

          # [[field, theirs, yours]] where two people disagree.
          def differences
            both = (theirs.raw.keys - %w[geometry lock_version]).map { |key| [key, theirs[key], self[key]] }
            both.reject { |_, their, your| their.to_s == your.to_s }
          end

          # The new patch, or nil with errors set. A shape that crosses itself keeps the drawing and offers a repair.
          def add_to(property)
            return unless (shape = read_shape(missing: "Draw a point, a line or an area first."))

            patch = Store::Patch.new(property_id: property.id, **columns)
            patch.shape = shape
            patch.place_first
            Store::Patch.db.transaction do
              patch.code = property.next_code
              patch.save
              observe(patch)
              patch
            end
          end

          # True when the change is stored; false with errors, or with `theirs` set when someone else was first.
          def change(patch)
            return false unless (shape = read_shape(missing: "Draw a point, a line or an area first."))

            Store::Change.keep([patch], "#{patch.code} changed") do
              # as it is in the file now
              raise Sequel::NoExistingObject, "changed meanwhile" if values[:lock_version] != patch.lock_version

              patch.set(columns)
              patch.shape = shape
              counted = patch.changed_columns.intersect?(%i[plants stems])
              patch.save
              recount(patch) if counted
              true
            end
          rescue Sequel::NoExistingObject
            overtaken(patch.refresh)
          end

          private

          # Other numbers than before: of a patch with records since, they are what was counted today.
          def recount(patch)
            counts = patch.values.slice(:plants, :stems).compact
            if counts.any? && (patch.first_counts || patch.history.records.any? { |_, kind, _| kind != :observation })
              Store::Observation.create(patch_id: patch.id, seen_on: @today, plant_key: patch.plant_key,
                                        settled: patch.settled?, group_key: patch.group_key, **counts)
            end
            Store::FollowUps.settle(patch)
          end

          # Someone else was first: both versions are shown, and what was typed is kept.
          def overtaken(patch)
            @theirs = self.class.of(patch, units)
            raw["lock_version"] = patch.lock_version.to_s
            errors[:base] = "Someone else changed this patch while you were typing. Nothing of yours is lost; " \
                            "look at both, then keep what is right."
            false
          end

          def columns
            found = KEPT.to_h { |key| [key, values[key]] }
            found[:slope] ||= "flat"
            found.merge(width_m: si(:width, :length), radius_m: si(:radius, :length), infested_m2: si(:infested, :area))
          end

          # Naming the plant by hand is not settling it: that is the identify room's work.
          def observe(patch)
            return unless patch.plant_key

            sure = raw["sure"] == "yes"
            Store::Observation.told(patch, seen_on: patch.seen_on, plant_key: patch.plant_key, settled: sure,
                                           note: sure ? "Named by the recorder" : nil)
          end
        end
      end
    end
  end
end
