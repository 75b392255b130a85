# frozen_string_literal: true

# What a planting asks for is no look at the invader: visits of its own kind, which no check ticks off. Water plants are
# counted by the bucket.
Sequel.migration do
  up do
    add_column :treatments, :buckets, Integer # of water plants that were carried out; null where nobody counted
    said = ["Look the stock over for weeds as it arrives, before it is planted",
            "Look the new plants over: weeds come with nursery stock", "Count what lives of the planting"]
    open = from(:tasks).where(key: nil, kind: "check")
    open.where(Sequel[:reason] => said).or(Sequel.like(:reason, "Mow the sowing to %") & { key: nil, kind: "check" })
        .update(kind: "planting")
    # Yearly looks count seed and pieces now: one that a person took back stays taken back.
    from(:tasks).where(Sequel.like(:key, "%:seed_bank:%"))
                .update(key: Sequel.function(:replace, :key, ":seed_bank:", ":every_year:"))
  end

  down do
    drop_column :treatments, :buckets
    from(:tasks).where(kind: "planting").update(kind: "check")
  end
end
