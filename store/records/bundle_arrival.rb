# frozen_string_literal: true

require "fileutils"
require "securerandom"

module Thistle
  module Store
    # Model: a bundle that somebody brought, kept beside the data until it is taken or put aside.
    class BundleArrival < Sequel::Model(:bundle_arrivals)
      class << self
        def folder = File.join(File.dirname(Database.path), "bundles")

        # Keeps an upload that is a bundle; raises Core::BadInput for another file, and keeps nothing.
        def bring(filename, source)
          FileUtils.mkdir_p(folder)
          file = "#{SecureRandom.hex(8)}.zip"
          path = File.join(folder, file)
          FileUtils.cp(source, path)
          Bundle::Reader.new(path)
          create(filename:, file:, created_at: Time.now.utc)
        rescue StandardError
          FileUtils.rm_f(path) if path
          raise
        end

        def open = where(status: "open").reverse(:id).all
      end

      def path = File.join(self.class.folder, file)
      def open? = status == "open"

      # Takes it in; what came of it is kept, the file goes. Of two people who ask at once one does it.
      def take(choices)
        merge = Bundle::Merge.new(Bundle::Reader.new(path))
        db.transaction do
          next unless this.where(status: "open").update(status: "taken") == 1

          came = merge.take(choices)
          this.update(report: JSON.generate(came:, notes: merge.notes))
        end
        FileUtils.rm_f(path)
        refresh
      end

      def put_aside
        this.where(status: "open").update(status: "aside")
        FileUtils.rm_f(path)
      end

      # {"came" => {what => number}, "notes" => [text]}; nil until it is taken.
      def told = report && JSON.parse(report)
    end
  end
end
