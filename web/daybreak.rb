# frozen_string_literal: true

module Thistle
  module Web
    # What is done at start and when the day turns, by whichever process is first: visits that wait for the weather follow
    # it, work that was cut off is said to be, a copy of the file is put aside.
    module Daybreak
      EVERY = 60 # seconds between looks at the calendar

      module_function

      # At start, before anyone is served.
      def at_start
        recover(all: true)
        Store::Setting.claim("daybreak", Store::Setting.today.iso8601)
        call
      end

      # Looks at the calendar now and then, on a thread of its own.
      def watch
        Thread.new do
          loop do
            sleep EVERY
            look
          rescue StandardError => e
            warn "daybreak: #{e.class}: #{e.message}"
          end
        end
      end

      def look
        recover
        call if Store::Setting.claim("daybreak", Store::Setting.today.iso8601)
      end

      def call
        Store::Task.follow_weather(Store::Property.order(:id).all, Store::Setting.today)
        Store::Backup.daily
      end

      def recover(all: false)
        Store::Arrival.recover(all:)
        Store::SeasonPlan.recover(all:)
        Store::Surroundings.recover(all:)
        Store::Job.lost.each { |job| job.fail_with(Store::Job::LOST) }
      end
    end
  end
end
