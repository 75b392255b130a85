# frozen_string_literal: true

module Thistle
  module Web
    # Turns away requests that are larger than anything a form here sends.
    class BodyLimit
      def initialize(app, limit)
        @app, @limit = app, limit
      end

      def call(env)
        return @app.call(env) unless env["CONTENT_LENGTH"].to_i > @limit

        [413, { "content-type" => "text/plain; charset=utf-8" },
         ["The file is larger than #{@limit / 1024 / 1024} MB. Nothing was saved."]]
      end
    end
  end
end
