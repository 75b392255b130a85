# frozen_string_literal: true

module Thistle
  module Store
    # Reading: a row of a file as a patch to be: its shape, repaired if need be, and its columns. Raises BadInput when
    # it cannot stand.
    class Incoming
      attr_reader :shape, :values, :notes

      # checked: the dry run has been over the shape.
      # reading: Core::Survey::Columns::Reading of the file's mapping.
      def initialize(row, reading, checked: false)
        @notes = [row[:notes]].reject { |text| text.to_s.empty? }
        properties = JSON.parse(row[:properties])
        @values, unread = reading.read(properties)
        @absent = properties["occurrenceStatus"].to_s.casecmp?("absent")
        @notes += unread
        unless row[:geometry]
          raise Core::BadInput.new("It has no place: no geometry, or one that cannot be read.", field: :geometry)
        end

        @shape = checked ? Core::Survey::Shape.stored(row[:geometry]) : read_shape(row[:geometry])
      end

      def code = values[:code]

      # Does the row say that a plant was looked for and was not there (Darwin Core)?
      def absent? = @absent
      def plant_key = values[:plant_key]

      # Is the shape another than the row's: repaired, or joined at the 180° meridian?
      def changed? = @mended || shape.bounds[2] > 180

      # Was the patch seen another day than any on record, later than the first? Then what it was is kept.
      def seen_again?(patch)
        later?(patch) && patch.observations_dataset.where(seen_on: values[:seen_on]).empty?
      end

      # What the row says of a patch that is known. A later day is another look, not another beginning.
      def told(patch)
        found = values.except(:code, :gross_m2, :people)
        later?(patch) ? found.except(:seen_on) : found
      end

      # The columns of a new patch, but for those that follow from the shape.
      def columns
        found = values.except(:code, :gross_m2, :people)
        found[:radius_m] ||= 2.0 if shape.kind == "point"
        found[:width_m] ||= 2.0 if shape.kind == "line"
        found
      end

      private

      def later?(patch) = values[:seen_on] && values[:seen_on] > patch.seen_on

      def read_shape(geometry)
        Core::Survey::Shape.parse(geometry)
      rescue Core::Survey::Shape::Crossed => e
        mend(e)
      end

      def mend(crossed)
        mended = crossed.repaired && Core::Survey::Shape.new(crossed.repaired)
        raise crossed unless mended&.kind == "polygon"

        @mended = true
        @notes << "#{crossed.message.chomp(".")}: repaired"
        mended
      end
    end
  end
end
