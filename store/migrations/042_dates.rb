# frozen_string_literal: true

# What a property's dates begin with, where a steward says otherwise than its country usually has it.
Sequel.migration do
  change { alter_table(:properties) { add_column :dates, String } }
end
