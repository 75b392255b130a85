# frozen_string_literal: true

module Thistle
  module Store
    # Dates and instants read by their places in the text, as this program writes them: most of what reading a row would
    # cost otherwise. Whatever is written in another way is read as Sequel reads it.
    module AsWritten
      DATE = /\A\d{4}-\d\d-\d\d\z/
      INSTANT = /\A\d{4}-\d\d-\d\d \d\d:\d\d:\d\d(\.\d{6})?\z/

      module_function

      def read_by(db)
        other_date, other_instant = db.conversion_procs.values_at("date", "datetime")
        date = ->(text) { text.is_a?(String) && DATE.match?(text) ? date(text) : other_date.call(text) }
        instant = ->(text) { text.is_a?(String) && INSTANT.match?(text) ? instant(text) : other_instant.call(text) }
        db.conversion_procs.update("date" => date, "datetime" => instant, "timestamp" => instant)
      end

      def date(text) = Date.new(text[0, 4].to_i, text[5, 2].to_i, text[8, 2].to_i)

      def instant(text)
        Time.utc(text[0, 4].to_i, text[5, 2].to_i, text[8, 2].to_i, text[11, 2].to_i, text[14, 2].to_i,
                 text[17, 2].to_i, text[20, 6].to_i)
      end
      private_class_method :date, :instant
    end
  end
end
