# frozen_string_literal: true

require "rgeo/proj4"

module Thistle
  module Core
    module Survey
      # A place as people write it, to [longitude, latitude] (WGS 84): degrees with minutes and seconds, UTM with its
      # zone, the British and the Irish grid by letters and figures, New Zealand's in metres. The shift of the two
      # lettered grids is PROJ's: true to some 5 m without its grid files.
      module Position
        BRITISH, IRISH, NZTM, WGS84 = "EPSG:27700", "EPSG:29903", "EPSG:2193", "EPSG:4326"
        NZTM_EAST, NZTM_NORTH = (1_000_000..2_150_000), (4_700_000..6_250_000)
        LETTERS = ("A".."Z").to_a - ["I"] # of both grids, five by five from the north-west
        SQUARE = 100_000.0 # m of a lettered square
        BANDS = "CDEFGHJKLMNPQRSTUVWX" # of UTM, from the south; N and later lie north of the equator
        HEMISPHERES = { "N" => 1, "E" => 1, "S" => -1, "W" => -1 }.freeze

        module_function

        # [longitude, latitude] of one text that holds all of it; nil where it is none of these.
        def read(text)
          words = text.to_s.upcase.strip
          of_grid(words) || of_utm(words.tr(",", " ").split) || of_nztm(words.tr(",", " ").split) || of_pair(words)
        end

        # A place as a grid's maps have it, to ten metres ("NY 2850 2100", "15S 638000 4206000"): a key of
        # Habits::GRIDS; nil where the grid does not reach.
        def write(longitude, latitude, grid)
          case grid
          when "british" then lettered(BRITISH, longitude, latitude) { |e, n| british_letters(e, n) }
          when "irish" then lettered(IRISH, longitude, latitude) { |e, n| irish_letter(e, n) }
          when "nztm" then metres(NZTM, longitude, latitude)&.then { |e, n| format("E %<e>d N %<n>d", e:, n:) }
          else utm_said(longitude, latitude)
          end
        end

        # Degrees of one angle: "38° 0' 4.3\" N", "-91.4021", "W 91 24.12"; nil for what is none, or has minutes or
        # seconds of 60 and more.
        def angle(text)
          words = text.to_s.upcase.strip
          side = HEMISPHERES.keys.find { |one| words.start_with?(one) || words.end_with?(one) }
          degrees, *parts = numbers(words)
          return if degrees.nil? || parts.size > 2 || parts.any? { |part| !part.between?(0, 59.999_999) }
          return if (side && degrees.negative?) || words.delete("NSEWDM").match?(/[A-Z]/)

          size = degrees.abs + (parts.fetch(0, 0.0) / 60) + (parts.fetch(1, 0.0) / 3600)
          (words.start_with?("-") ? -size : size) * HEMISPHERES.fetch(side, 1)
        end

        # The numbers of an angle; none where one of them is none.
        def numbers(words)
          found = words.delete("NSEW").tr(",", ".").scan(/[-+]?[0-9.]+/).map { |one| Float(one, exception: false) }
          found.all? ? found : []
        end

        # [longitude, latitude] of metres in a zone, "15S" or "15 N": a letter is a band, but for a lone N or S after a
        # number that no band fits.
        def utm(zone, easting, northing)
          number, letter = zone.to_s.upcase.delete(" ").then { |text| [text.to_i, text[-1]] }
          return unless number.between?(1, 60) && BANDS.include?(letter.to_s) && letter
          return unless easting.between?(100_000, 900_000) && northing.between?(0, 10_000_000)

          project(format("EPSG:32%d%02d", letter < "N" ? 7 : 6, number), easting, northing)
        end

        # "NY 123 456" and "NY1234556789", or "C 123 456" in Ireland.
        def of_grid(words)
          letters, figures = words.delete(" ").then { |text| [text[/\A[A-Z]{1,2}/], text.sub(/\A[A-Z]{1,2}/, "")] }
          return unless letters && !letters.include?("I") && figures.match?(/\A[0-9]{2,10}\z/) && figures.size.even?

          half = figures.size / 2
          scale = 10.0**(5 - half)
          east, north = [figures[0, half], figures[half..]].map { |part| (part.to_i + 0.5) * scale }
          origin = letters.size == 2 ? british(letters) : irish(letters)
          origin && project(letters.size == 2 ? BRITISH : IRISH, origin[0] + east, origin[1] + north)
        end

        # South-west corner of a British square; nil for one beyond the grid.
        def british(letters)
          first, second = letters.chars.map { |letter| LETTERS.index(letter) }
          east = (((first - 2) % 5) * 5) + (second % 5)
          north = 19 - ((first / 5) * 5) - (second / 5)
          [east * SQUARE, north * SQUARE] if east.between?(0, 6) && north.between?(0, 12)
        end

        # The same of an Irish one.
        def irish(letter)
          place = LETTERS.index(letter)
          [(place % 5) * SQUARE, (4 - (place / 5)) * SQUARE]
        end

        # "1748735 5427916", east first, with E and N or without.
        def of_nztm(words)
          figures = words.join(" ").scan(/[0-9.]+/).map(&:to_f)
          return unless figures.size == 2 && NZTM_EAST.cover?(figures[0]) && NZTM_NORTH.cover?(figures[1])

          project(NZTM, *figures)
        end

        # "15S 638000 4206000".
        def of_utm(words)
          return unless words.size == 3 && words.first.match?(/\A[0-9]{1,2}[A-Z]\z/)

          easting, northing = words.drop(1).map { |one| Float(one.delete("ENM"), exception: false) }
          utm(words.first, easting, northing) if easting && northing
        end

        # "38°00'04"N 91°24'07"W" or "38.0012, -91.4021": latitude first, unless the letters say otherwise.
        def of_pair(words)
          first, second = parted(words)
          one, other = angle(first), angle(second)
          return unless one && other

          turned = first.match?(/[EW]/) || second.match?(/[NS]/)
          turned ? [one, other] : [other, one]
        end

        # The two angles of a text: by a comma or semicolon, by their letters, else by half of its numbers.
        def parted(words)
          halves = words.split(/[;,] /)
          halves = words.split(",") if halves.size != 2 && words.count(",") == 1
          return halves if halves.size == 2

          at = words.each_char.with_index.filter_map { |letter, n| n if HEMISPHERES.key?(letter) }
          return words.split.then { |two| two.size == 2 ? two : [] } unless at.size == 2

          cut = at.first.zero? ? at.last : at.first + 1
          [words[0...cut], words[cut..]]
        end

        # "15S 638000 4206000"
        def utm_said(longitude, latitude)
          return unless latitude.between?(-80, 84)

          zone = (((longitude + 180) / 6).floor % 60) + 1
          found = metres(format("EPSG:32%d%02d", latitude.negative? ? 7 : 6, zone), longitude, latitude) or return
          format("%<zone>d%<band>s %<e>d %<n>d", zone:, band: BANDS[[((latitude + 80) / 8).floor, 19].min],
                                                 e: found[0], n: found[1])
        end

        # Letters that the block finds for a place's square, and tens of metres within it.
        def lettered(grid, longitude, latitude)
          east, north = metres(grid, longitude, latitude)
          letters = east && yield((east / SQUARE).floor, (north / SQUARE).floor) or return
          [letters, *[east, north].map { |m| format("%04d", (m % SQUARE) / 10) }].join(" ")
        end

        # "NY" of a square's place from the south-west, in hundreds of km; nil beyond the grid.
        def british_letters(east, north)
          return unless east.between?(0, 6) && north.between?(0, 12)

          first = ((3 - (north / 5)) * 5) + (east / 5) + 2
          LETTERS[first] + LETTERS[((4 - (north % 5)) * 5) + (east % 5)]
        end

        # The same of Ireland's.
        def irish_letter(east, north)
          LETTERS[((4 - north) * 5) + east] if east.between?(0, 4) && north.between?(0, 4)
        end

        # Whole metres of a projection; nil for a place beyond it.
        def metres(to, longitude, latitude)
          found = RGeo::CoordSys::Proj4.transform_coords(
            *[WGS84, to].map { |text| RGeo::CoordSys::Proj4.new(text) }, longitude, latitude, nil
          )
          found.first(2).map(&:floor) if found&.first&.finite?
        end

        # Metres of a projection to [longitude, latitude]; nil for what lies beyond it.
        def project(from, east, north)
          source, target = [from, WGS84].map { |text| RGeo::CoordSys::Proj4.new(text) }
          longitude, latitude = RGeo::CoordSys::Proj4.transform_coords(source, target, east, north, nil)
          [longitude, latitude] if longitude&.finite? && latitude&.finite?
        end
      end
    end
  end
end
