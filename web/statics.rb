# frozen_string_literal: true

require "digest"
require "rack/static"

module Thistle
  module Web
    # Styles, scripts, fonts and pictures of the interface. A page names each with the fingerprint of what it holds, so
    # that a browser may keep it for a year and still sees a new one at once.
    class Statics
      FOLDERS = %w[/css /js /vendor /img /fonts].freeze
      YEAR = 31_536_000
      HEADERS = { "cache-control" => "public, max-age=3600", "x-content-type-options" => "nosniff",
                  "cross-origin-resource-policy" => "same-origin" }.freeze
      PUBLIC = "#{ROOT}/public".freeze

      # "/css/thistle.css?v=1f2e3d4c"
      def self.address(path) = (@addresses ||= {})[path] ||= fingerprinted(path)

      def self.fingerprinted(path)
        file = "#{PUBLIC}#{path}"
        File.file?(file) ? "#{path}?v=#{Digest::SHA256.file(file).hexdigest[0, 12]}" : path
      end
      private_class_method :fingerprinted

      def initialize(app)
        @app = app
        @files = Rack::Static.new(app, urls: FOLDERS, root: PUBLIC, cascade: true,
                                       header_rules: [[:all, HEADERS]])
      end

      def call(env)
        return @app.call(env) unless FOLDERS.any? { |folder| env["PATH_INFO"].start_with?(folder) }

        status, headers, body = @files.call(env)
        if status == 200 && env["QUERY_STRING"].to_s.start_with?("v=")
          headers["cache-control"] = "public, max-age=#{YEAR}, immutable"
        end
        [status, headers, body]
      end
    end
  end
end
