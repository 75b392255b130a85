# frozen_string_literal: true

require "minitest/mock"
require "tmpdir"
require "test_helper"

module Thistle
  # A library that was put aside is the one that was read, or it is read anew.
  class SavedTest < Minitest::Test
    Knowledge = Core::Knowledge

    def with_folder
      Dir.mktmpdir { |folder| yield folder, -> { Dir.glob("*", base: folder) } }
    end

    # Where the files would be read, the library stands that was read already.
    def without_reading(&) = Knowledge.stub(:new, Knowledge.shipped) { with_folder(&) }
    def library(folder) = Knowledge::Saved.new(folder).library

    # Every plant, method, table and chance, by what it holds.
    def test_it_is_the_same
      with_folder do |folder, files|
        read, kept = library(folder), library(folder)

        assert_equal [1, 0o600], [files.call.size, File.stat(File.join(folder, files.call.first)).mode & 0o777]
        refute_same read, kept
        assert_predicate kept, :frozen?
        (read.instance_variables - %i[@suiting]).each do |name|
          one, other = [read, kept].map { |each| said(each.instance_variable_get(name)) }

          assert_equal one, other, name
        end
        assert_equal(*[read, kept].map { |each| said(Core::Identify::Chances.of(each)) })
      end
    end

    # Cut short, changed, or of other files: nothing of it is taken, and the one that fits takes its place.
    def test_what_does_not_fit_is_read_anew
      without_reading do |folder, files|
        File.write(File.join(folder, "library-#{"0" * 24}.bin"), "old")
        library(folder)
        path = File.join(folder, files.call.first)
        whole = File.binread(path)

        assert_equal 1, files.call.size
        ["", whole[0, 1000], whole.dup.tap { |bytes| bytes.setbyte(5000, bytes.getbyte(5000) ^ 1) }].each do |bytes|
          File.binwrite(path, bytes)

          assert_same Knowledge.shipped, library(folder)
          assert_equal whole.bytesize, File.size(path)
        end
      end
    end

    def test_a_folder_that_takes_nothing
      without_reading { assert_same Knowledge.shipped, library("/proc/no such folder") }
    end

    private

    # What an object holds, all the way down.
    def said(value)
      case value
      when Hash then value.map { |key, one| [said(key), said(one)] }
      when Array, Set then value.map { |one| said(one) }
      when String, Symbol, Numeric, true, false, nil, Date, Range, Regexp, Module then value
      when Struct then value.to_a.map { |one| said(one) }
      else value.instance_variables.map { |name| [name, said(value.instance_variable_get(name))] }
      end
    end
  end
end
