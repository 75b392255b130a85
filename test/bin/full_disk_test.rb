# frozen_string_literal: true

require "chunky_png"
require "test_helper"
require_relative "../../bench/served"

module Thistle
  # A disk that is full, a real one of ten megabytes: files still go out, every upload and form is answered in words,
  # and what was there stays. Only who may mount can try it.
  class FullDiskTest < Minitest::Test
    include Served

    def setup
      @disk = Dir.mktmpdir("disk")
      @mounted = system("mount", "-t", "tmpfs", "-o", "size=10m", "none", @disk, err: File::NULL)
      skip "only root may mount a disk" unless @mounted
    end

    def teardown
      system("umount", "--lazy", @disk) if @mounted
      FileUtils.rm_rf(@disk)
    end

    def test_a_full_disk_is_said_and_loses_nothing
      serve_from(@disk) do
        page = ask("/survey/files")
        @cookie, @token = page["set-cookie"][/\A[^;]+/], page.body[/name="csrf" content="([^"]+)"/, 1]
        assert_match(/MB left/, ask("/records").body)
        before = ask("/survey/export/geojson").body
        File.open(File.join(@disk, "fill"), "wb") { |file| fill(file) }
        Web::Survey::Export::KINDS.each_key { |kind| assert_equal "200", ask("/survey/export/#{kind}").code, kind }
        sent.each do |large, path, fields|
          answer = post(path, fields)
          next if answer.code == "303" && !large # the journal had room for it

          assert_equal "503", answer.code, path
          assert_includes answer.body, "the disk is full", path
        end
        assert_equal before, ask("/survey/export/geojson").body
        FileUtils.rm_f(File.join(@disk, "fill"))

        assert_equal "303", post(*sent.first.drop(1)).code, "and with room it is taken"
      end
    end

    private

    def fill(file)
      loop { file.syswrite("x" * 1024) }
    rescue Errno::ENOSPC
      nil
    end

    # [is it large? path, fields] of each kind of form that takes a file or makes a record.
    def sent
      points = Array.new(3000) do |n|
        { type: "Feature", properties: { code: "Z-#{n}", note: "some words " * 9 },
          geometry: { type: "Point", coordinates: [-91.4 + (n * 1e-5), 38.0] } }
      end
      file = ->(rows) { JSON.generate(type: "FeatureCollection", features: rows) }
      random = Random.new(1)
      noise = ChunkyPNG::Image.new(400, 400)
      400.times { |x| 400.times { |y| noise[x, y] = (random.rand(1 << 24) << 8) | 255 } }
      [[false, "/survey/arrivals", [["file", file[points.first(2)], { filename: "few.geojson" }]]],
       [true, "/survey/arrivals", [["file", file[points * 2], { filename: "many.geojson" }]]],
       [true, "/survey/layers", [["corners", "38.01, -91.41\n38.01, -91.40\n38.0, -91.41"],
                                 ["file", noise.to_blob, { filename: "air.png" }]]],
       [false, "/records/properties", [%w[name North], %w[prefix NN], %w[units us], %w[texture loam], %w[latitude 38],
                                       %w[longitude -91]]],
       [false, "/recheck/tasks", [%w[patch 1], %w[kind check], %w[reason Look], %w[wait date], %w[due_on 2027-05-01]]]]
    end

    def ask(path)
      Net::HTTP.start("127.0.0.1", @port) { |http| http.get(path, { "Cookie" => @cookie.to_s }) }
    end

    def post(path, fields)
      wanted = Net::HTTP::Post.new(path, "Cookie" => @cookie)
      wanted.set_form([["authenticity_token", @token], *fields], "multipart/form-data")
      Net::HTTP.start("127.0.0.1", @port) { |http| http.request(wanted) }
    end
  end
end
