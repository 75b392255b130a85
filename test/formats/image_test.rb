# frozen_string_literal: true

require "csv"
require "test_helper"

module Thistle
  class ImageTest < Minitest::Test
    Image = Formats::Image

    # A JPEG of 4 x 3 pixels' header with an EXIF block that says 38° 0' 4.32" N, 91° 24' 7.56" W, 225°, by the
    # TIFF 6.0 and EXIF 2.3 definitions: big-endian, GPS directory behind the first.
    def self.jpeg(exif: true)
      rational = ->(*numbers) { numbers.map { |n| [(n * 100).round, 100].pack("NN") }.join }
      entry = ->(tag, type, count, value) { [tag, type, count].pack("nnN") + value }
      gps = [5].pack("n") + entry.call(1, 2, 2, "N\0\0\0") + entry.call(2, 5, 3, [92].pack("N")) +
            entry.call(3, 2, 2, "W\0\0\0") + entry.call(4, 5, 3, [116].pack("N")) +
            entry.call(17, 5, 1, [140].pack("N")) + [0].pack("N")
      tiff = "MM\0*".b + [8].pack("N") + [1].pack("n") + entry.call(0x8825, 4, 1, [26].pack("N")) + [0].pack("N") +
             gps + rational.call(38, 0, 4.32) + rational.call(91, 24, 7.56) + rational.call(225)
      app1 = "Exif\0\0".b + tiff
      sof = "\xFF\xC0".b + [11, 8, 3, 4, 1, 1, 0x11, 0].pack("nCnnCCCC")
      scan = "\xFF\xDA".b + [8, 1, 1, 0, 0, 63, 0].pack("nCCCCCC") + "\x12\x34\xFF\xD9".b
      "\xFF\xD8".b + (exif ? "\xFF\xE1".b + [app1.bytesize + 2].pack("n") + app1 : "") + sof + scan
    end

    def jpeg(...) = self.class.jpeg(...)
    def why(bytes, name: "leaf.jpg") = assert_raises(Core::BadInput) { Image.new(name, bytes) }.message

    def test_where_a_photograph_was_taken_is_read_and_taken_out
      image = Image.new("../../leaf.jpg", jpeg)

      assert_in_delta 38.0012, image.latitude, 1e-6
      assert_in_delta(-91.4021, image.longitude, 1e-6)
      assert_in_delta 225, image.direction
      assert_equal "leaf.jpg", image.filename
      refute_includes image.public_bytes, "Exif"
      again = Image.new("leaf.jpg", image.public_bytes)

      assert_nil again.latitude
      assert_equal jpeg(exif: false), image.public_bytes
    end

    def test_what_is_not_a_picture_is_refused_with_the_reason
      assert_match(/not a JPEG or PNG/, why("GIF89a..."))
      assert_match(/not a JPEG or PNG/, why(""))
      assert_match(/larger than 8 MB/, why("\xFF\xD8\xFF".b + ("x" * 9_000_000)))
      assert_match(/broken JPEG/, why("\xFF\xD8\xFF\xE0nonsense".b))
      assert_match(/broken JPEG/, why(jpeg.byteslice(0, 60)))
      assert_match(/broken PNG/, why("\x89PNG\r\n\x1A\nshort".b))
      random = Random.new(4)

      100.times do |n|
        assert_match(/broken|cut off/, why(Image::TYPES.values[n % 2] + random.bytes(random.rand(0..200))))
      end
    end

    # Read back by Ruby's own CSV reader; the terms are TDWG's.
    def test_darwin_core
      text = Formats::DarwinCore.write([{ "occurrenceID" => "urn:x:1", "occurrenceRemarks" => "a, \"b\"\nc",
                                          "decimalLatitude" => 38.0012 }])
      row = CSV.parse(text, headers: true).first

      assert_equal ["a, \"b\"\nc", "38.0012", nil],
                   row.values_at("occurrenceRemarks", "decimalLatitude", "scientificName")
      assert_includes text, "\r\n"
    end
  end
end
