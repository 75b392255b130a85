# frozen_string_literal: true

require "test_helper"

module Thistle
  # What the documents name is there: files and folders in backticks, links between them, a page for every room.
  class DocsTest < Minitest::Test
    PAGES = Dir.chdir(ROOT) { ["ARCHITECTURE.md", "CONTRIBUTING.md", "README.md", *Dir["docs/**/*.md"]] }.freeze
    FOLDERS = %w[bin core store formats stand_ins web demo bench test knowledge docs].freeze
    MADE = /ROOM|KIND|DIR|FILE|NAME|_…|thistle\.db|\s|#/

    def test_every_file_that_is_named_is_there
      missing = PAGES.flat_map do |page|
        text = File.read("#{ROOT}/#{page}")
        text.scan(%r{`((?:#{FOLDERS.join("|")})/[^`]*)`}).flatten.grep_v(MADE)
            .reject { |path| Dir["#{ROOT}/#{path}"].any? || Dir["#{ROOT}/#{path}.*"].any? }
            .map { |path| "#{page}: #{path}" }
      end

      assert_empty missing
    end

    def test_every_link_leads_somewhere
      lost = PAGES.flat_map do |page|
        File.read("#{ROOT}/#{page}").scan(/\]\(([^)#:]+?)\)/).flatten
            .reject { |to| File.exist?(File.expand_path(to, "#{ROOT}/#{File.dirname(page)}")) }
            .map { |to| "#{page} → #{to}" }
      end

      assert_empty lost
    end

    def test_every_room_has_its_page
      assert_empty Web::Page::ROOMS.drop(1) - Dir["#{ROOT}/docs/rooms/*.md"].map { |path| File.basename(path, ".md") }
    end
  end
end
