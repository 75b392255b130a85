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
      ALWAYS_ASKED = { "cache-control" => "no-cache", "x-content-type-options" => "nosniff" }.freeze

      # "/css/thistle.css?v=1f2e3d4c"
      def self.address(path) = (@addresses ||= {})[path] ||= fingerprinted(path)

      def self.fingerprinted(path)
        file = "#{PUBLIC}#{path}"
        File.file?(file) ? "#{path}?v=#{Digest::SHA256.file(file).hexdigest[0, 12]}" : path
      end
      private_class_method :fingerprinted

      PACKED = { "/vendor/ruby.wasm" => "application/wasm" }.freeze # large, and packed once: bin/build-assets

      def initialize(app)
        @app = app
        @files = Rack::Static.new(app, urls: FOLDERS, root: PUBLIC, cascade: true,
                                       header_rules: [[:all, HEADERS]])
      end

      def call(env)
        at_root = Pocket::Shell.files[env["PATH_INFO"]] if ["/sw.js",
                                                            "/manifest.webmanifest"].include?(env["PATH_INFO"])
        return [200, { "content-type" => at_root.first, **ALWAYS_ASKED }, [at_root.last]] if at_root
        return @app.call(env) unless FOLDERS.any? { |folder| env["PATH_INFO"].start_with?(folder) }

        status, headers, body = packed(env) || @files.call(env)
        if status == 200 && env["QUERY_STRING"].to_s.start_with?("v=")
          headers["cache-control"] = "public, max-age=#{YEAR}, immutable"
        end
        [status, headers, body]
      end

      private

      # What lies packed, for whoever can unpack it.
      def packed(env)
        type = PACKED[env["PATH_INFO"]]
        return unless type && env["REQUEST_METHOD"] == "GET" && env["HTTP_ACCEPT_ENCODING"].to_s.include?("gzip")

        file = "#{PUBLIC}#{env["PATH_INFO"]}.gz"
        return unless File.file?(file)

        [200, { "content-type" => type, "content-encoding" => "gzip", "content-length" => File.size(file).to_s,
                "vary" => "Accept-Encoding", **HEADERS }, File.open(file, "rb")]
      end
    end
  end
end
