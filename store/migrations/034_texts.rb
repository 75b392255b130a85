# frozen_string_literal: true

# What people wrote, in one index (FTS5): a row for each live record with a text in it, kept by triggers, so that
# nothing that writes can forget it. rowid: the record's id times 32, and the number of its kind (Store::Texts::KINDS).
Sequel.migration do
  up do
    # The names of people that a record lists by id.
    listed = "(SELECT group_concat(name, ', ') FROM people WHERE id IN (SELECT value FROM json_each(NEW.people_ids)))"
    of_patch = { patch: "NEW.patch_id", property: "(SELECT property_id FROM patches WHERE id = NEW.patch_id)" }
    of_property = { patch: "NULL", property: "NEW.property_id" }
    of_all = { patch: "NULL", property: "NULL" }
    of_planting = { patch: "(SELECT patch_id FROM plantings WHERE id = NEW.planting_id)",
                    property: "(SELECT p.property_id FROM plantings g JOIN patches p ON p.id = g.patch_id " \
                              "WHERE g.id = NEW.planting_id)" }
    own_words = "(SELECT group_concat(value, ' ') FROM json_each(NEW.asked, '$.notes'))"

    # table => [number of its kind, whose it is, day, who, body]: columns, or an expression over one (from).
    kinds = {
      patches: [1, { patch: "NEW.id", property: "NEW.property_id" }, :seen_on, [], %i[note]],
      observations: [2, of_patch, :seen_on, %i[people], %i[note]],
      treatments: [3, of_patch, :done_on, [:people, :applicator, listed], %i[note equipment left_over_went]],
      checks: [4, of_patch, :checked_on, %i[people], %i[note]],
      searches: [5, of_property, :searched_on, %i[people], %i[note]],
      sightings: [6, of_property, :seen_on, %i[person], %i[note]],
      plantings: [7, of_patch, :from_on, [], %i[origin supplier]],
      planting_plans: [8, of_patch, nil, [], %i[reason]],
      people: [9, of_all, nil, %i[name], %i[note]],
      products: [10, of_all, nil, [], %i[name registration kept_at]],
      reports: [11, { patch: "NEW.patch_id", property: "NEW.property_id" }, :seen_on, %i[recorder answered_by],
                %i[note answer_note]],
      work_days: [12, of_property, :held_on, [listed], %i[meet help note]],
      zones: [13, of_property, :seen_on, [], %i[name note]],
      layers: [14, of_property, nil, [], %i[name]],
      kit_items: [15, of_all, nil, %i[lent_to], %i[name note]],
      trials: [16, of_patch, :begun_on, [], %i[question first_how second_how]],
      courses: [17, of_patch, :chosen_on, %i[person], %i[reason]],
      local_rules: [18, of_property, :said_on, %i[person], %i[reason]],
      pictures: [19, of_patch, :taken_on, [], %i[filename]],
      seed_lots: [20, of_all, :gathered_on, [], %i[name origin supplier]],
      gather_places: [21, of_property, nil, [], %i[note]],
      take_counts: [22, of_planting, :counted_on, [], %i[note]],
      land_plans: [23, of_property, :made_on, %i[made_by], [own_words]]
    }
    never_taken_back = %i[reports courses]
    from = { listed => :people_ids, own_words => :asked }

    joined = ->(parts) do
      some = parts.map { |part| "coalesce(#{part.is_a?(Symbol) ? "NEW.#{part}" : part}, '')" }
      some.empty? ? "''" : "trim(#{some.join(" || ' ' || ")})"
    end

    run "CREATE VIRTUAL TABLE texts USING fts5(patch_id UNINDEXED, property_id UNINDEXED, on_day UNINDEXED, who, " \
        "body, tokenize = \"unicode61 remove_diacritics 2\", prefix = '2 3')"
    run "CREATE VIRTUAL TABLE texts_words USING fts5vocab(texts, row)"

    kinds.each do |table, (number, whose, day, who, body)|
      taken_back = never_taken_back.include?(table) ? [] : [:deleted_at]
      live = taken_back.any? ? "NEW.deleted_at IS NULL" : "1"
      put = "INSERT INTO texts (rowid, patch_id, property_id, on_day, who, body) SELECT NEW.id * 32 + #{number}, " \
            "#{whose[:patch]}, #{whose[:property]}, #{day ? "date(NEW.#{day})" : "NULL"}, " \
            "#{joined[who]}, #{joined[body]}"
      where = "WHERE #{live} AND #{joined[who]} || #{joined[body]} <> ''"
      drop = "DELETE FROM texts WHERE rowid = OLD.id * 32 + #{number}"
      owners = whose.values.filter_map { |text| text[/\ANEW\.(\w+)\z/, 1]&.to_sym } - [:id]
      columns = [*owners, *day, *(who + body).map { |part| from.fetch(part, part) }, *taken_back].uniq

      run "#{put} FROM #{table} AS NEW #{where}"
      run "CREATE TRIGGER texts_#{table}_in AFTER INSERT ON #{table} BEGIN #{put} #{where}; END"
      run "CREATE TRIGGER texts_#{table}_out AFTER DELETE ON #{table} BEGIN #{drop}; END"
      run "CREATE TRIGGER texts_#{table}_new AFTER UPDATE OF #{columns.join(", ")} ON #{table} " \
          "BEGIN #{drop}; #{put} #{where}; END"
    end

    # A person's new name stands in what lists them.
    %i[treatments work_days].each do |table|
      run "CREATE TRIGGER texts_#{table}_named AFTER UPDATE OF name ON people BEGIN UPDATE #{table} SET people_ids = " \
          "people_ids WHERE EXISTS (SELECT 1 FROM json_each(#{table}.people_ids) WHERE value = NEW.id); END"
    end

    create_table(:kept_searches) do
      primary_key :id
      String :name, null: false
      String :asked, text: true, null: false
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
