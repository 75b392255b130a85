# frozen_string_literal: true

# A management plan as it was handed to the people of a land: a version a row, kept as it was said then.
Sequel.migration do
  change do
    create_table(:land_plans) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, index: true
      Integer :version, null: false
      Date :made_on, null: false
      String :made_by, null: false
      String :asked, text: true, null: false, default: "{}"
      String :status, null: false, default: "making"
      String :fault, text: true
      String :said, text: true
      String :figures, text: true
      DateTime :deleted_at
      DateTime :created_at, null: false
      unique %i[property_id version]
    end
  end
end
