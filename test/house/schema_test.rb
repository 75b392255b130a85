# frozen_string_literal: true

require "test_helper"
require "support/schema_page"

module Thistle
  # docs/schema.md is what the migrations make, and no table is drawn for rooms that is not there.
  class SchemaTest < Minitest::Test
    def test_the_page_is_true
      assert_equal SchemaPage.new.text, File.read("#{ROOT}/docs/schema.md"), "run rake schema"
    end

    def test_writers_are_of_tables_that_are_there
      db = Sequel.sqlite
      Sequel.extension :migration
      Sequel::Migrator.run(db, Store::Database::MIGRATIONS)

      assert_empty Writers.allowed.values.flatten.uniq - db.tables.map(&:to_s)
    end
  end
end
