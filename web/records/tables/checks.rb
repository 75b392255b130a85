# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # Checks of the property at hand, the last first.
        class Checks < Table
          COUNTS = { resprouts: "Resprouts", missed: "Missed", seedlings: "Seedlings" }.freeze

          def self.title = "Checks"
          def self.start = ["/recheck", "Visits"]
          def address(check) = check.amend_address
          def acts = []
          def filters = [words, plants, *days]
          def down? = @params["sort"] ? super : true

          def dataset = of_property(Store::Check)

          def columns
            @columns ||= [
              dated("Checked", :checked_on), *of_patch,
              *COUNTS.map { |name, label| plain(label, name, number: true) },
              plain("Cover class", :cover_class, number: true), plain("Note", :note, by: nil)
            ]
          end

          private

          def with(rows) = with_patches(rows)

          def narrowed(found, key, value)
            case key
            when "q" then found.where(patch_id: on_patches(value))
            when "plant" then found.where(patch_id: of_plant(value))
            else spanned(found, key, value, Sequel[:checked_on])
            end
          end
        end
      end
    end
  end
end
