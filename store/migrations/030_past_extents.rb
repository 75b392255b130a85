# frozen_string_literal: true

# Past shapes are found by where they lay, as patches are by where they lie; a line or a point keeps its size of then.
Sequel.migration do
  up do
    alter_table(:patch_shapes) { %i[width_m radius_m west south east north].each { |name| add_column name, Float } }
    run "CREATE VIRTUAL TABLE past_extents USING rtree(id, west, east, south, north)"
    run <<~SQL
      CREATE TRIGGER past_extent_added AFTER INSERT ON patch_shapes WHEN new.west IS NOT NULL BEGIN
        INSERT INTO past_extents VALUES (new.id, new.west, new.east, new.south, new.north);
      END
    SQL
    run <<~SQL
      CREATE TRIGGER past_extent_moved AFTER UPDATE OF west, east, south, north ON patch_shapes BEGIN
        DELETE FROM past_extents WHERE id = new.id;
        INSERT INTO past_extents VALUES (new.id, new.west, new.east, new.south, new.north);
      END
    SQL
    run <<~SQL
      CREATE TRIGGER past_extent_removed AFTER DELETE ON patch_shapes BEGIN
        DELETE FROM past_extents WHERE id = old.id;
      END
    SQL
  end

  down do
    %w[added moved removed].each { |event| run "DROP TRIGGER past_extent_#{event}" }
    drop_table(:past_extents)
    alter_table(:patch_shapes) { %i[width_m radius_m west south east north].each { |name| drop_column name } }
  end
end
