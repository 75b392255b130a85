# frozen_string_literal: true

module Thistle
  module Web
    # Around everything else: what comes to the surface before a page is there to say it, a full disk while a file is on
    # its way above all, is said in words too.
    class LastWords
      # The answer to a fault that no page could say: [status, headers, body].
      def self.for(fault)
        known = Store::Database.fault?(fault)
        warn "#{fault.class}: #{fault.message}", *fault.backtrace&.first(5) unless known
        [known ? 503 : 500, { "content-type" => "text/plain; charset=utf-8" }, [known ? kept(fault) : App::WRONG]]
      end

      # "This was not saved. Your earlier records are safe. Reason: the disk is full."
      def self.kept(fault)
        "This was not saved. Your earlier records are safe. Reason: #{Store::Database.said(fault)}"
      end

      def initialize(app)
        @app = app
      end

      def call(env)
        Incoming.settle
        @app.call(env)
      rescue *Store::Disk::FAULTS, Sequel::DatabaseError, SQLite3::Exception => e
        LastWords.for(e)
      end
    end
  end
end
