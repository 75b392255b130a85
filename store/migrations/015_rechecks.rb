# frozen_string_literal: true

# What a look can say besides: suckers, seedlings in a frame, natives, how hard it was searched, untreated ground; when
# a property counts a patch as over; pictures of a look.
Sequel.migration do
  up do
    alter_table(:checks) do
      add_column :suckers, Integer, null: false, default: 0
      add_column :seedlings_seen, String # none, some (not counted), counted, frame
      add_column :frame_count, Integer # seedlings in frames of together frame_m2
      add_column :frame_m2, Float
      add_column :natives, String # of those that come by themselves: none, some, many
      add_column :searchers, Integer
      add_column :minutes, Integer # that each searched
      add_column :sight, String # open, patchy, dense
      add_column :untreated, Integer # stems that were left untreated beside, for comparison
      add_column :untreated_alive, Integer
    end
    alter_table(:properties) do
      add_column :close_below, Float # chance that a patch still lives, 0 to 1, below which it closes; null: as shipped
      add_column :close_years, String # likely or high: whose seed and fragment years have to be over
    end
    alter_table(:pictures) { add_column :check_id, Integer }
  end

  down { raise Sequel::Error, "going back would lose data" }
end
