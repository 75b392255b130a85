# frozen_string_literal: true

module Thistle
  module Store
    # Model: a photograph of a report: the picture alone; what the camera wrote beside it is kept in columns, or not.
    class Photo < Sequel::Model(:photos)
      many_to_one :report, class: "Thistle::Store::Report"

      # Has those of earlier versions, kept as they came, hold the picture alone. The block makes one of bytes and media
      # type; nil for what it cannot tell, which goes.
      def self.clean
        select_order_map(:id).each do |id|
          photo = self[id]
          plain = yield(photo.bytes, photo.media).to_s
          photo.update(bytes: Sequel.blob(plain)) unless plain == photo.bytes
        end
      end
    end
  end
end
