# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # How much stood there on a day: gross and infested area apart, measured and estimated apart.
      # plants: how many, whatever the stems of each; stems: {size => number} by stem size; cover_percent 0 to 100, from
      # a class its middle.
      Amount = Value.define(:gross_m2, :infested_m2, :cover_class, :cover_percent, :density_m2, :stems, :plants,
                            :height_cm, :stage) do
        # [m², :measured or :estimated], or nil. Gross area × cover is only ever an estimate.
        def infested
          return [infested_m2, :measured] if infested_m2

          gross_m2 && cover ? [gross_m2 * cover / 100, :estimated] : nil
        end

        # Percent: as given, else the middle of its class.
        def cover = cover_percent || (cover_class && Cover.class_of(cover_class).middle)

        # [stems, :counted or :estimated], or nil. Density × infested ground is only ever an estimate.
        def stem_count
          return [stems.values.sum, :counted] if stems&.any?

          area = infested&.first
          density_m2 && area ? [(density_m2 * area).round, :estimated] : nil
        end

        # The size that most stems are of; the larger of two alike.
        def stem_size = stems&.any? ? stems.max_by { |size, number| [number, Removal::SIZES.index(size)] }.first : nil
      end
    end
  end
end
