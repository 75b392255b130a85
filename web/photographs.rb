# frozen_string_literal: true

module Thistle
  module Web
    # Photographs among what was sent. Of a record that a phone kept they are looked through before anything is written,
    # since a process of its own looks at them, which may take seconds, and nobody else's record should wait for it.
    module Photographs
      # [Formats::Image] of uploads. Raises Core::BadInput for what is none.
      def images(files)
        seen = files.map { |file| @looked_at&.fetch(file[:tempfile].path, nil) }
        return Formats::Image.all(files) unless seen.all?

        seen.map { |image| image.is_a?(Core::BadInput) ? raise(image) : image }
      end

      # Looks through all that was sent. Raises Core::Busy where too many are looked through just now.
      def look_through
        @looked_at = params.values.flatten.filter_map { |value| Upload.read(value) }.to_h do |file|
          [file[:tempfile].path, image_or_fault(file)]
        end
      end

      private

      def image_or_fault(file)
        Formats::Image.all([file]).first
      rescue Core::Busy
        raise
      rescue Core::BadInput => e
        e
      end
    end
  end
end
