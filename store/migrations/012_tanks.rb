# frozen_string_literal: true

# A second product in a tank; what a label said before it was changed, so that a record goes by the label of its day;
# weather that somebody measured beside the work.
Sequel.migration do
  up do
    create_table(:label_versions) do
      primary_key :id
      foreign_key :product_id, :products, null: false, on_delete: :cascade
      Integer :version, null: false # the product's lock_version up to which it said so
      String :said, null: false, text: true # the columns of the label
      DateTime :created_at, null: false
      index %i[product_id version], unique: true
    end
    alter_table(:treatments) do
      add_column :label_version, Integer
      add_column :second_product_id, Integer
      add_column :second_product_ml, Float
      add_column :second_label_version, Integer
      add_column :weather_by_hand, String, text: true # {start: {temperature, wind_km_h, humidity}, middle, end}
    end
    now = self[:products].where(id: Sequel[:treatments][:product_id]).select(:lock_version)
    self[:treatments].exclude(product_id: nil).update(label_version: now)
  end

  down { raise Sequel::Error, "going back would lose data" }
end
