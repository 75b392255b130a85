# frozen_string_literal: true

require "icalendar"
require "icalendar/tzinfo"

module Thistle
  module Formats
    # A calendar as iCalendar (RFC 5545): whole days as dates, hours on the clock of the place with its daylight saving.
    module Ics
      # uid: stable, so that a program that subscribes moves an entry and does not double it. from, to: Dates (to
      # included), or [Date, hour] pairs on the clock.
      Entry = Core::Value.define(:uid, :title, :text, :from, :to, :place, :kind)
      PRODUCT = "-//Nimble Thistle//Season//EN"

      module_function

      # Text of a calendar; zone: a name of the tz database; stamp: a UTC Time.
      def write(entries, name:, zone:, stamp:)
        calendar = Icalendar::Calendar.new
        calendar.prodid = PRODUCT
        calendar.append_custom_property("NAME", name)
        calendar.append_custom_property("X-WR-CALNAME", name)
        timed = entries.select { |entry| entry.from.is_a?(Array) }
        calendar.add_timezone(TZInfo::Timezone.get(zone).ical_timezone(moment(timed.first.from))) if timed.any?
        entries.each { |entry| calendar.add_event(event(entry, zone, stamp)) }
        calendar.publish
        calendar.to_ical
      end

      def event(entry, zone, stamp)
        Icalendar::Event.new.tap do |event|
          event.uid, event.summary, event.description, event.location = entry.uid, entry.title, entry.text, entry.place
          event.dtstamp = Icalendar::Values::DateTime.new(stamp, "tzid" => "UTC")
          event.dtstart, event.dtend = entry.from.is_a?(Array) ? hours(entry, zone) : days(entry)
          event.categories = [entry.kind]
          event.transp = "TRANSPARENT"
        end
      end

      # An end is the first day after.
      def days(entry) = [entry.from, entry.to + 1].map { |date| Icalendar::Values::Date.new(date.strftime("%Y%m%d")) }

      def hours(entry, zone)
        [entry.from, entry.to].map do |pair|
          Icalendar::Values::DateTime.new(moment(pair).strftime("%Y%m%dT%H%M%S"), "tzid" => zone)
        end
      end

      def moment((date, hour)) = DateTime.new(date.year, date.month, date.day) + Rational(hour, 24)
      private_class_method :event, :days, :hours, :moment
    end
  end
end
