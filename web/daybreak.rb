# frozen_string_literal: true

module Thistle
  module Web
    # What is done at start and when the day turns, by whichever process is first: visits that wait for the weather
    # follow it, work that was cut off is said to be, a copy of the file is put aside.
    module Daybreak
      EVERY = 60 # seconds between looks at the calendar

      module_function

      STARTED = "started" # in the place of days: the first look finds another day

      # At start, before anyone is served: work that was cut off is said to be. What waits for the weather follows it in
      # the first look, while people are served already.
      def at_start
        recover(all: true)
        Store::Setting.write("daybreak", STARTED)
      end

      # Looks at the calendar now and then, on a thread of its own.
      def watch
        Thread.new do
          loop do
            look
          rescue StandardError => e
            warn "daybreak: #{e.class}: #{e.message}"
          ensure
            sleep EVERY
          end
        end
      end

      # Of several processes that look at once, one does what a new day wants.
      def look
        recover
        follow_weather if Store::Setting.claim("daybreak", days.join(" "))
        return unless Store::Setting.claim("copied", Time.now.strftime("%F %H"))

        Accounts::Weekly.new(Store::Setting.today).call
        Incoming.sweep
        Store::SentForm.sweep
        Store::Pieces.sweep
        Store::DailyCopies.new.make_apart
      end

      # The days on the clocks of all properties: another when it turned on any of them.
      def days = Store::Property.order(:id).all.map(&:today).uniq.sort.map(&:iso8601)

      def follow_weather
        Store::Property.order(:id).all.group_by(&:today).each do |today, there|
          Store::FollowUps.follow_weather(there, today)
        end
      end

      def recover(all: false)
        Store::Arrival.recover(all:)
        Store::SeasonPlan.recover(all:)
        Store::LandPlan.recover(all:)
        Store::Surroundings.recover(all:)
      end
    end
  end
end
