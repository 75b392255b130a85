# frozen_string_literal: true

module Thistle
  module Formats
    # NMEA 0183 sentences of a GPS receiver: GGA (fix and dilution) and RMC (date), each with its checksum, the
    # exclusive or of every byte between $ and *.
    module NMEA
      module_function

      # [Core::Survey::Track::Fix]; sentences with a wrong checksum or without a fix are passed over.
      # Raises BadInput when there is not one good sentence.
      def fixes(bytes)
        date, found, broken = nil, [], 0
        bytes.b.each_line do |line|
          next if line.strip.empty?

          fields = sentence(line.strip)
          next broken += 1 unless fields

          date = day(fields[9]) if fields[0].end_with?("RMC") && fields[2] == "A"
          found << gga(fields, date) if fields[0].end_with?("GGA")
        end
        found.compact!
        if found.empty?
          Reader.refuse("No position in it: #{broken} broken sentences, none that is whole and has a fix.")
        end
        over_midnight(found)
      end

      def checksum(body) = format("%02X", body.bytes.reduce(0, :^))
      def wrap(body) = "$#{body}*#{checksum(body)}\r\n"

      # fixes with time in UTC seconds; each as RMC and GGA.
      def write(fixes)
        fixes.map do |fix|
          at = Time.at(fix.time).utc
          clock = at.strftime("%H%M%S.%2N")
          lat, lon = angle(fix.lat, 2, "NS"), angle(fix.lon, 3, "EW")
          dilution = format("%.2f", (fix.accuracy_m || 5) / GPX::METRES_A_DILUTION)
          wrap("GPRMC,#{clock},A,#{lat},#{lon},,,#{at.strftime("%d%m%y")},,,A") +
            wrap("GPGGA,#{clock},#{lat},#{lon},1,08,#{dilution},,M,,M,,")
        end.join
      end

      # The fields of a sentence whose checksum holds.
      def sentence(line)
        body, sum = line[/\A\$([^*]+)\*(\h{2})\z/, 1], line[/\*(\h{2})\z/, 1]
        body.split(",", -1) if body && checksum(body) == sum.upcase
      end

      def gga(fields, date)
        return if fields[6].to_i.zero?

        lat, lon = degrees(fields[2], 2, fields[3], "S"), degrees(fields[4], 3, fields[5], "W")
        time = clock(fields[1]) or return
        return unless lat && lon

        hdop = Core::Decimal.read(fields[8])
        Core::Survey::Track::Fix.new(lon:, lat:, time: (date || Time.utc(2000)).to_f + time,
                                     accuracy_m: hdop && (hdop * GPX::METRES_A_DILUTION))
      end

      def degrees(text, digits, side, negative)
        return unless text.to_s.match?(/\A\d{#{digits + 2}}(\.\d+)?\z/)

        value = text[0, digits].to_i + (text[digits..].to_f / 60)
        side == negative ? -value : value
      end

      def angle(value, digits, sides)
        whole, part = value.abs.divmod(1)
        minutes = (part * 60).round(6)
        whole, minutes = whole + 1, 0.0 if minutes >= 60
        format("%0#{digits}d%09.6f,%s", whole, minutes, value.negative? ? sides[1] : sides[0])
      end

      def clock(text)
        hours, minutes, seconds = text.to_s.match(/\A(\d\d)(\d\d)(\d\d(?:\.\d+)?)\z/)&.captures
        seconds && ((hours.to_i * 3600) + (minutes.to_i * 60) + seconds.to_f)
      end

      def day(text)
        d, m, y = text.to_s.match(/\A(\d\d)(\d\d)(\d\d)\z/)&.captures
        y && Time.utc(2000 + y.to_i, m.to_i, d.to_i)
      rescue ArgumentError
        nil
      end

      # A log without dates that passes midnight goes on the next day.
      def over_midnight(fixes)
        days, last = 0, nil
        fixes.map do |fix|
          days += 1 if last && fix.time + (days * 86_400) < last - 43_200
          last = fix.time + (days * 86_400)
          fix.with(time: last)
        end
      end
      private_class_method :sentence, :gga, :degrees, :angle, :clock, :day, :over_midnight
    end
  end
end
