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

      # "Nothing of this was kept, and nothing that was there is lost: the disk is full."
      def self.kept(fault)
        "Nothing of this was kept, and nothing that was there is lost: #{Store::Database.said(fault)}"
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
