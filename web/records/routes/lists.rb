# frozen_string_literal: true

require "yaml"

module Thistle
  module Web
    module Records
      module Routes
        # Tables of all records: sorted, narrowed, handed on, changed several at once.
        module Lists
          KINDS = [Tables::Patches, Tables::Visits, Tables::Treatments, Tables::Checks, Tables::People,
                   Tables::Products, Tables::Seed].to_h { |kind| [kind.key, kind] }.freeze

          # Which of them whoever asks may take along.
          module Helpers
            def readable_lists
              things = Addresses::KINDS.fetch("@lists")
              KINDS.filter_map { |key, kind| kind if may?(:read, things.fetch(key)) }
            end
          end

          def self.registered(app)
            app.helpers Helpers
            app.get "/records/lists" do
              go_to "/records/lists/patches"
            end

            app.get "/records/lists/:kind" do
              table = Lists.table(self, params)
              show("records/list", table:, kind: params["kind"], error: nil) do
                go_on(Rack::Utils.parse_query(table.query("page" => table.turns.after.to_s))) if table.turns.after
                Answers.table(table, table.rows)
              end
            end

            # Every list whole, a sheet each, and a sheet that says what the columns hold.
            app.get "/records/workbook" do
              tables = readable_lists.map { |kind| kind.new(property, {}, units, today) }
              content_type Formats::Workbook::MEDIA
              attachment "#{property.name.downcase.gsub(/[^a-z0-9]+/, "-")}-#{today.iso8601}.xlsx"
              Formats::Workbook.write([*tables.map { |table| Lists.sheet(table) }, Lists.dictionary(tables)])
            end

            app.get "/records/lists/:kind/workbook" do
              table = Lists.table(self, params)
              content_type Formats::Workbook::MEDIA
              attachment "#{params["kind"]}-#{today.iso8601}.xlsx"
              Formats::Workbook.write([Lists.sheet(table), Lists.dictionary([table])])
            end

            app.get "/records/lists/:kind/file" do
              table = Lists.table(self, params)
              content_type "text/csv", charset: "utf-8"
              attachment "#{params["kind"]}-#{today.iso8601}.csv"
              rows = table.each_row.lazy.map { |row| table.columns.map { |one| Answers.cell(one, row) } }
              Formats::CsvFile.write(table.columns.map(&:label), rows)
            end

            app.post "/records/lists/:kind" do
              table = Lists.table(self, params)
              count = table.change(params["act"].to_s)
              offer_undo if params["act"] == "aim"
              way = table.undo(params["act"]) and offer_undo "/records/lists/#{params["kind"]}/#{way}"
              go_to "/records/lists/#{params["kind"]}?#{table.query}", "#{Words.count(count, "record")} changed."
            rescue Core::BadInput => e
              show "records/list", status: 422, table:, kind: params["kind"], error: e.message
            end

            app.post "/records/lists/:kind/back/:ids" do
              ids = params["ids"].scrub.split("-").map { |text| Whole.read(text) }
              count = Lists.table(self, params).back(ids) || halt(404)
              go_to "/records/lists/#{params["kind"]}", "#{Words.count(count, "record")} brought back."
            end
          end

          ABOUT = YAML.safe_load_file("#{ROOT}/web/records/columns.yml").freeze

          # [title, headings, rows] of a table, whole.
          def self.sheet(table)
            rows = table.each_row.lazy.map { |row| table.columns.map { |one| Answers.cell(one, row) } }
            [table.class.title, table.columns.map(&:label), rows]
          end

          # The same of what their columns hold.
          def self.dictionary(tables)
            rows = tables.flat_map do |table|
              about = ABOUT.fetch(table.class.key)
              table.columns.map { |one| [table.class.title, one.label, about.fetch(one.key)] }
            end
            ["Columns", %w[Sheet Column Holds], rows]
          end

          def self.table(page, params)
            kind = KINDS[params["kind"]] || page.halt(404)
            kind.new(page.property, params, page.units, page.today)
          end
        end
      end
    end
  end
end
