# frozen_string_literal: true

# The clock of the land that was taken along: the turns of its clock that the server wrote down, in place of a table of
# all clocks. Answers what Core::Season::Clock asks.
module TZInfo
  class PeriodNotFound < StandardError; end

  # A stretch with one offset.
  Period = Struct.new(:from, :to, :observed_utc_offset, :base_utc_offset)

  # A clock by its name.
  class Timezone
    class << self
      # {name => [[from, to, offset, offset without daylight saving]]}, seconds of the epoch and of the clock
      attr_accessor :turns

      def get(name) = new(name, turns.fetch(name) { [[nil, nil, 0, 0]] })
      def all_identifiers = turns.keys
    end

    def initialize(name, turns)
      @name, @periods = name, turns.map { |turn| Period.new(*turn) }
    end

    def period_for_utc(utc)
      at = utc.to_i
      @periods.find { |one| (one.from.nil? || at >= one.from) && (one.to.nil? || at < one.to) }
    end

    def utc_to_local(utc) = utc.dup.localtime(period_for_utc(utc).observed_utc_offset)

    # The block chooses where the hour comes twice.
    def local_to_utc(local)
      wall = Time.utc(local.year, local.month, local.day, local.hour, local.min, local.sec)
      found = @periods.select do |one|
        at = wall.to_i - one.observed_utc_offset
        (one.from.nil? || at >= one.from) && (one.to.nil? || at < one.to)
      end
      raise PeriodNotFound if found.empty?

      one = found.size > 1 && block_given? ? yield(found) : found.first
      wall - one.observed_utc_offset
    end

    def _dump(_level) = @name
    def self._load(name) = get(name)
  end

  # As the server's clocks call themselves.
  DataTimezone = Timezone
end
