# frozen_string_literal: true

module Thistle
  module Core
    # How a date is written: the day before the month, or after it, as a property's country has it (Survey::Habits).
    # The order is that of the work at hand, a thread's own, since a page, a report or a letter is one reader's.
    module Dates
      KEY = :thistle_dates
      FIRST = { "day" => "4 June 2026", "month" => "June 4, 2026" }.freeze # what comes first => how that looks

      module_function

      # "day" or "month".
      def first = Thread.current[KEY] || "day"

      # first: "day", "month", or nil for the usual. Raises ArgumentError on anything else.
      def first=(first)
        raise ArgumentError, "a date begins with no #{first}" unless first.nil? || FIRST.key?(first)

        Thread.current[KEY] = first
      end

      # Runs the block with dates written so; as before after it.
      def written(first)
        before = Thread.current[KEY]
        self.first = first
        yield
      ensure
        Thread.current[KEY] = before
      end

      # "4 June" or "June 4"
      def day(date) = month_first? ? date.strftime("%B %-d") : date.strftime("%-d %B")

      # "4 Jun" or "Jun 4"
      def short(date) = month_first? ? date.strftime("%b %-d") : date.strftime("%-d %b")

      # "4 June 2026" or "June 4, 2026"
      def full(date) = month_first? ? date.strftime("%B %-d, %Y") : date.strftime("%-d %B %Y")

      # "Thursday 4 June" or "Thursday, June 4"
      def of_week(date) = month_first? ? date.strftime("%A, %B %-d") : date.strftime("%A %-d %B")

      # "Thu 4 Jun" or "Thu, Jun 4"
      def short_of_week(date) = month_first? ? date.strftime("%a, %b %-d") : date.strftime("%a %-d %b")

      # A third of a month, which nobody writes in another order, for what is kept as text: "early in June".
      def about(date) = "#{THIRDS[[(date.mday - 1) / 10, 2].min]} #{date.strftime("%B")}"
      THIRDS = ["early in", "in the middle of", "late in"].freeze

      def month_first? = first == "month"
    end
  end
end
