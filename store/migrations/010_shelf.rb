# frozen_string_literal: true

# The shelf: products as their labels describe them, which of them is used for what on a property, and which a treatment
# took from; what sprayers put on the ground, measured. What was entered of labels before becomes products of which only
# the weather is known.
Sequel.migration do
  up do
    create_table(:products) do
      primary_key :id
      String :name, null: false
      String :form
      String :actives, null: false, default: "[]", text: true # [{active, percent, grams_per_litre, most_g_per_ha}]
      String :uses, null: false, default: "[]", text: true # [{kind, low, high}]: percent of product
      String :registration
      String :signal_word
      TrueClass :ready_to_use
      TrueClass :aquatic
      Float :rainfast_h
      Float :reentry_h
      Float :plant_back_days
      Float :wind_low
      Float :wind_high
      Float :gust
      Float :temperature_low
      Float :temperature_high
      String :protection, text: true
      String :first_aid, text: true
      String :spill, text: true
      String :call, text: true
      Date :expires_on
      String :kept_at
      Float :counted_ml
      DateTime :counted_at
      Integer :lock_version, null: false, default: 0
      DateTime :deleted_at
      DateTime :created_at, null: false
      DateTime :updated_at
    end
    create_table(:products_in_use) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade
      foreign_key :product_id, :products, null: false, on_delete: :cascade
      String :kind, null: false
      index %i[property_id kind], unique: true
    end
    create_table(:calibrations) do
      primary_key :id
      String :sprayer, null: false
      String :person
      String :way, null: false
      Float :litres_per_ha, null: false
      Float :km_h
      Date :done_on, null: false
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
    alter_table(:treatments) { add_column :product_id, Integer }
    limits = %i[wind_low wind_high gust temperature_low temperature_high rainfast_h]
    self[:labels].order(:id).each do |label|
      name = label[:product].to_s.empty? ? "Product for #{label[:kind]} work" : label[:product]
      id = self[:products].insert(name:, created_at: Time.now.utc, **label.slice(*limits))
      self[:products_in_use].insert(property_id: label[:property_id], product_id: id, kind: label[:kind])
    end
    drop_table(:labels)
  end

  down { raise Sequel::Error, "going back would lose data" }
end
