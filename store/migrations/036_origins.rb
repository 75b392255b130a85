# frozen_string_literal: true

require "securerandom"

# What a copy calls itself, and which rows came from another: gid as that copy wrote it ("COPY/ID"), the row that it is
# here, and the version that both knew last.
Sequel.migration do
  up do
    create_table(:origins) do
      String :gid, null: false
      String :name, null: false
      Integer :local_id, null: false
      String :digest, null: false
      primary_key %i[name gid]
      index %i[name local_id]
    end
    create_table(:bundle_arrivals) do
      primary_key :id
      String :filename, null: false
      String :file, null: false
      String :status, null: false, default: "open"
      String :report, text: true
      DateTime :created_at, null: false
    end
    from(:settings).insert_conflict.insert(key: "copy", value: SecureRandom.uuid)
  end

  down { raise Sequel::Error, "going back would lose data" }
end
