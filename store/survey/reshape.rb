# frozen_string_literal: true

module Thistle
  module Store
    # Process: changes to the ground of patches: looked at again, split, cut down, merged. Each can be undone, and each
    # keeps the history: a part that was cut off remembers what it was part of, a merged patch what it took in.
    class Reshape
      def initialize(patch)
        @patch = patch
      end

      # What was seen on a day: an amount and perhaps a new shape. The shape it had stays on record until that day.
      def look_again(seen_on:, amount:, shape: nil, **told)
        Change.keep([@patch], "#{@patch.code} looked at again") { see(seen_on:, amount:, shape:, **told) }
      end

      # The same for whoever keeps the journal already. An earlier sight than the last is a record, and changes nothing.
      def see(seen_on:, amount:, shape: nil, **told)
        latest = seen_on >= (@patch.shape_from || @patch.seen_on)
        gross = shape ? shape.gross_area(width: @patch.width_m, radius: @patch.radius_m) : @patch.gross_m2
        Observation.create(patch_id: @patch.id, seen_on:, plant_key: @patch.plant_key, settled: @patch.settled?,
                           group_key: @patch.group_key, gross_m2: gross,
                           stage: amount.stage, **columns(amount), **told)
        if latest
          keep_version(seen_on)
          take(amount, shape, seen_on)
        end
        FollowUps.settle(@patch)
        @patch.property.year_changed if amount.stage
      end

      # Cuts the patch along a line; the largest part keeps the code. Answers the new patches.
      def split(line, on:)
        parts = Core::Survey::Overlay.split(@patch.shape, line)
        Change.keep([@patch], "#{@patch.code} split in #{parts.size}") do
          keep_version(on)
          resize(parts.first, on)
          left = parts.sum { |part| extent(part) }
          made = parts.drop(1).map { |part| part_off(part, on, extent(part) / left).tap { left -= extent(part) } }
          FollowUps.settle(@patch)
          made
        end
      end

      # Cuts off the ground of an area, which becomes a patch with the same history, ready for its own records.
      def cut_off(area, on:)
        areas = [area, @patch.shape].all? { |shape| shape.kind == "polygon" }
        off = Core::Survey::Overlay.intersection(@patch.shape, area) if areas
        refuse "That area does not lie on #{@patch.code}.", :cut unless off
        left = Core::Survey::Overlay.difference(@patch.shape, area)
        refuse "That is all of #{@patch.code}: record the work on the whole patch.", :cut unless left
        Change.keep([@patch], "part of #{@patch.code} cleared") do
          keep_version(on)
          resize(left, on)
          part = part_off(off, on, extent(off) / (extent(off) + extent(left)))
          FollowUps.settle(@patch)
          part
        end
      end

      # Takes another patch in; its code goes, its history stays.
      def merge(other, on:)
        refuse "#{other.code} is on another property.", :other unless other.property_id == @patch.property_id
        refuse "#{other.code} is the same patch.", :other if other.id == @patch.id
        refuse "#{other.code} is another plant.", :other unless other.plant_key == @patch.plant_key
        grounds = [@patch, other].map(&:ground)
        refuse "A point or a line needs its size before it can be merged.", :other unless grounds.all?
        Change.keep([@patch, other], "#{other.code} merged into #{@patch.code}") do
          keep_version(on)
          resize(Core::Survey::Overlay.union(grounds), on, infested_m2: both(:infested_m2, other))
          Wishes.hand_over(other, @patch)
          other.update(merged_into_id: @patch.id, merged_on: on, deleted_at: Time.now.utc)
          @patch.associations.clear
          FollowUps.settle(@patch)
        end
      end

      private

      def refuse(message, field) = raise(Core::BadInput.new(message, field:))

      # The shape it has had so far, if that stood for at least a day.
      def keep_version(on)
        from = @patch.shape_from || @patch.seen_on
        return if on <= from

        PatchShape.create(patch_id: @patch.id, from_on: from, to_on: on, geometry: @patch.geometry,
                          width_m: @patch.width_m, radius_m: @patch.radius_m,
                          gross_m2: @patch.gross_m2, infested_m2: @patch.infested&.first)
      end

      def take(amount, shape, on)
        keep_counts
        @patch.shape = shape if shape
        @patch.set(shape_from: on, **latest(amount, shape), stage: amount.stage || @patch.stage)
        @patch.set(stems: amount.stem_count.first) if amount.stem_count
        @patch.set(stem_size: amount.stem_size) if amount.stem_size
        @patch.save
      end

      # What was not said stays as it was; but a cover, class or percent, stands for the other, and a measured area
      # says nothing once the shape or the cover is another.
      def latest(amount, shape)
        told = columns(amount).compact
        covered = told.key?(:cover_class) || told.key?(:cover_percent)
        stale = [*(%i[cover_class cover_percent infested_m2] if covered), *(:infested_m2 if shape)]
        { **stale.to_h { |column| [column, nil] }, **told }
      end

      def columns(amount)
        { infested_m2: amount.infested_m2, cover_class: amount.cover_class, cover_percent: amount.cover_percent,
          density_m2: amount.density_m2,
          height_cm: amount.height_cm, plants: amount.plants,
          stems_by_size: amount.stems&.any? ? JSON.generate(amount.stems) : nil }
      end

      # Counts and measured areas of the whole say nothing of a part: they go until someone looks again, and what
      # stands there is worked out from the records.
      def resize(shape, on, **amounts)
        keep_counts
        @patch.shape = shape
        @patch.set(shape_from: on, width_m: nil, radius_m: nil, infested_m2: nil, stems: nil, plants: nil,
                   stems_by_size: nil, **amounts)
        @patch.save
      end

      # m² of an area, m of a line.
      def extent(shape) = shape.gross_area || shape.length

      # What was counted when it was mapped, before its columns say something else.
      def keep_counts
        counts = @patch.values.slice(:plants, :stems).compact
        @patch.first_counts ||= JSON.generate(counts) if counts.any?
      end

      # share: of the ground that it is parted from.
      def part_off(shape, on, share)
        kept = @patch.values.slice(:property_id, :plant_key, :group_key, :state, :stem_size, :cover_class,
                                   :cover_percent, :density_m2, :height_cm, :stage,
                                   :slope, :light, :moisture, :natives_near, :aim)
        part = Patch.new(**kept, code: @patch.property.next_code, parent_id: @patch.id, parted_on: on,
                                 parted_share: share, seen_on: @patch.seen_on, shape_from: on,
                                 note: "Parted from #{@patch.code}.")
        part.shape = shape
        part.save
        Wishes.hand_on(@patch, part)
        FollowUps.settle(part)
        part
      end

      def both(column, other) = @patch[column] && other[column] ? @patch[column] + other[column] : nil
    end
  end
end
