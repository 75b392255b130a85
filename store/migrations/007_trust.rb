# frozen_string_literal: true

# Trust: does fire belong on a property's ground? Not said is a no.
Sequel.migration do
  up { alter_table(:properties) { add_column :fire_adapted, TrueClass } }

  down { raise Sequel::Error, "going back would lose data" }
end
