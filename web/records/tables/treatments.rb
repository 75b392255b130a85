# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # Treatments of the property at hand, the last first.
        class Treatments < Table
          def self.title = "Treatments"
          def self.start = ["/work", "Record a treatment"]
          def address(work) = work.amend_address

          def dataset = of_property(Store::Treatment)

          def columns
            @columns ||= [
              dated("Done", :done_on), *of_patch,
              keyed("Method", :method_key) { |one| one.removal.name },
              column("people", "People") { |one| people(one) },
              plain("Crew", :crew_size, number: true),
              keyed("Hours each", :hours, number: true) { |one| Words.hours(one.hours) },
              plain("Plants", :plants_done, number: true), plain("Stems", :stems_done, number: true),
              keyed("Herbicide", :active_key) { |one| active(one) },
              plain("Note", :note, by: nil)
            ]
          end

          def filters
            [words, plants, filter("method", "Method", methods_done), *days]
          end

          def acts
            [act("people", "Set who was there", filter("set_people", "People", :text),
                 filter("set_by", "Corrected by", :text))]
          end

          # A correction of each, with the same reason.
          def act_people(works)
            people, person = wanted("set_people")[0, 400], wanted("set_by")[0, 80]
            works.each do |one|
              one.correct(version: one.amended, person:, reason: "Set in a list", people:, people_ids: "[]")
            end
            works.size
          end

          def down? = @params["sort"] ? super : true

          private

          def with(rows) = with_patches(rows)
          def names = @names ||= Store::Person.names

          def people(work)
            [*names.values_at(*JSON.parse(work.people_ids)), work.people].compact.join(", ")
          end

          def active(work) = work.active_key ? Core::Knowledge.shipped.actives.fetch(work.active_key).name : ""

          def methods_done
            dataset.unordered.distinct.select_map(:method_key).map { |key| Core::Knowledge.shipped.removal(key) }
                   .sort_by(&:name).to_h { |removal| [removal.key, removal.name] }
          end

          def narrowed(found, key, value)
            case key
            when "q" then found.where(patch_id: on_patches(value))
            when "plant" then found.where(patch_id: of_plant(value))
            when "method" then found.where(method_key: value)
            else spanned(found, key, value, Sequel[:done_on])
            end
          end
        end
      end
    end
  end
end
