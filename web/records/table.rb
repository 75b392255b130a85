# frozen_string_literal: true

module Thistle
  module Web
    module Records
      # All records of one kind as a table: narrowed by what an address asks, sorted by a column, a page at a time;
      # several can be chosen, handed on as CSV or changed at once. Each kind is a class of its own (tables/), which
      # says: `title`, `start` (the address that begins such a record, and its words), `dataset`, `columns`, `filters`,
      # `acts`, `address(row)`, and an `act_KEY(rows)` for each act.
      class Table
        # key: in JSON and in an address; label: heading, with its unit; by: what it is sorted by, nil for none; text:
        # what a page shows of a row; raw: what a file and JSON hold, nil for the text; number: set to the right.
        Column = Core::Value.define(:key, :label, :by, :text, :raw, :number)
        # key: name of the field, none of `kind`, `sort`, `down`, `page`, `ids`, `act`; label; options: {value =>
        # words}, or :text, :date.
        Filter = Core::Value.define(:key, :label, :options)
        # label: on the button; fields: [Filter] whose values it needs.
        Act = Core::Value.define(:key, :label, :fields)
        MOST = 500 # records changed at once
        SLICE = 500 # rows of a file that are read at a time

        attr_reader :turns

        def initialize(property, params, units, today)
          @property, @params, @units, @today = property, params, units, today
          @turns = Turns.new(sorted, params)
        end

        def rows = @rows ||= with(turns.rows)
        def total = turns.total

        # The column that it is sorted by, and is it downwards?
        def sort = columns.find { |column| column.by && column.key == @params["sort"] } || columns.find(&:by)
        def down? = @params["down"] == "1"

        # What the address asks, as a query with changes.
        def query(changes = {})
          state = filters.to_h { |filter| [filter.key, asked(filter.key)] }
          state["sort"], state["down"] = @params["sort"], (down? ? "1" : nil)
          Rack::Utils.build_query(state.merge(changes).select { |_, value| value.is_a?(String) && !value.empty? })
        end

        # The value of a filter in the address; nil for none.
        def asked(key)
          text = @params[key]
          text.is_a?(String) && !text.strip.empty? ? text.strip : nil
        end

        # Ids that were ticked.
        def ticked = Array(@params["ids"]).grep(String).map { |text| Whole.read(text) }.select(&:positive?).uniq

        # Rows of a file, in the order of the page: the ticked ones, or all that the filters let through.
        def each_row
          return enum_for(:each_row) unless block_given?

          found = ticked.any? ? sorted.where(id_column => ticked) : sorted
          found.select_map(id_column).each_slice(SLICE) do |ids|
            by_id = with(dataset.where(id_column => ids).all).to_h { |row| [row.id, row] }
            ids.each { |id| yield by_id.fetch(id) }
          end
        end

        # How many were changed. Raises Core::BadInput (field :ids, or the act's) and changes nothing.
        def change(key)
          act = acts.find { |one| one.key == key } or refuse_rows("That cannot be done to them.")
          refuse_rows("Tick the rows first.") if ticked.empty?
          refuse_rows("Tick at most #{MOST} rows.") if ticked.size > MOST
          found = with(dataset.where(id_column => ticked).all)
          refuse_rows("Not all of these records are there any more.") if found.size < ticked.size
          Sequel::Model.db.transaction { public_send(:"act_#{act.key}", found) }
        end

        # The end of the address that undoes an act that was just done; nil where each record is put right by itself.
        def undo(_key) = nil

        # How many were brought back; nil where nothing of this kind goes off a list.
        def back(_ids) = nil

        def self.key = name.split("::").last.downcase

        private

        def id_column = Sequel[dataset.model.table_name][:id]
        def with(rows) = rows

        def sorted
          by = Array(sort.by).map { |one| down? ? Sequel.desc(one) : one }
          filtered(dataset).order(*by, id_column)
        end

        def filtered(found)
          filters.reduce(found) do |some, filter|
            value = asked(filter.key)
            value ? narrowed(some, filter.key, value) : some
          end
        end

        def refuse_rows(words) = raise(Core::BadInput.new(words, field: :ids))
        def day(text) = text.match?(/\A\d{4}-\d\d-\d\d\z/) ? Date.iso8601(text) : refuse(text)
        def refuse(text) = raise(Core::BadInput.new("“#{text}” is not a day, such as 2026-05-12.", field: :from))

        # Dates of a column between two days.
        def spanned(found, key, value, column)
          key == "from" ? found.where(column >= day(value)) : found.where(column <= day(value))
        rescue Date::Error
          refuse(value)
        end

        # Patches of the property by code or plant.
        def on_patches(words)
          patches = @property.live_patches.unordered
          patches.where(Sequel.ilike(:code, "%#{patches.escape_like(words)}%") |
                        { plant_key: Store::PlantNames.find(words) }).select(:id)
        end

        # Patches of the property with a plant by its key; without a name where it is "none".
        def of_plant(key)
          @property.live_patches.unordered.where(plant_key: key == "none" ? nil : key).select(:id)
        end

        # The plants that stood on the property, to narrow by.
        def plants
          keys = Store::Patch.where(property_id: @property.id).unordered.exclude(plant_key: nil)
                             .distinct.select_map(:plant_key)
          named = keys.to_h { |key| [key, plant_name(key)] }.sort_by(&:last).to_h
          filter("plant", "Plant", { **named, "none" => "not named" })
        end

        def column(key, label, by: nil, raw: nil, number: false, &text)
          Column.new(key:, label:, by:, text:, raw:, number:)
        end

        # A column of the record as it stands: text or a number; and a day.
        def plain(label, name, by: name, number: false)
          column(name.to_s, label, by:, number:, raw: ->(row) { row[name] }) { |row| row[name].to_s }
        end

        # A column that holds a key, and what it is called.
        def keyed(label, name, by: name, number: false, &words)
          column(name.to_s, label, by:, number:, raw: ->(row) { row[name] }, &words)
        end

        def dated(label, name, by: name)
          column(name.to_s, label, by:, raw: ->(row) { row[name] }) { |row| row[name] ? Words.full_day(row[name]) : "" }
        end

        # Whose record it is.
        def of_patch
          [column("patch", "Patch") { |row| row.patch.code },
           column("plant", "Plant", raw: ->(row) { row.patch.plant_key }) { |row| plant_name(row.patch.plant_key) }]
        end

        # Records of the property's patches, and the patches of some of them, read at once.
        def of_property(model)
          model.where(deleted_at: nil, patch_id: Store::Patch.where(property_id: @property.id).select(:id))
        end

        def with_patches(rows)
          patches = Store::Patch.where(id: rows.map(&:patch_id).uniq).as_hash(:id)
          rows.each { |row| row.associations[:patch] = patches.fetch(row.patch_id) }
        end

        def filter(key, label, options) = Filter.new(key:, label:, options:)
        def act(key, label, *fields) = Act.new(key:, label:, fields:)
        def words(key = "q", label = "Code or plant") = filter(key, label, :text)
        def days = { "from" => "From", "to" => "To" }.map { |key, label| filter(key, label, :date) }
        def plant_name(key) = key ? Core::Knowledge.shipped.plant(key).name : "not named"

        def wanted(key)
          asked(key) || raise(Core::BadInput.new("Say what to set.", field: key.to_sym))
        end
      end
    end
  end
end
