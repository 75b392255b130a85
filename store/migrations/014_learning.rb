# frozen_string_literal: true

# A look that says nothing of how well a method works, as somebody judged; who and why stands in its amendment.
Sequel.migration do
  up { alter_table(:checks) { add_column :left_out, TrueClass, null: false, default: false } }
  down { raise Sequel::Error, "going back would lose data" }
end
