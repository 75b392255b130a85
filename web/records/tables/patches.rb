# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # Patches of the property at hand.
        class Patches < Table
          def self.title = "Patches"
          def self.start = ["/survey#patch-form", "Map a patch"]
          def dataset = Store::Patch.live.where(property_id: @property.id).eager(:treatments)
          def address(patch) = "/survey/patches/#{patch.id}"

          def columns
            @columns ||= [
              plain("Patch", :code, by: [Sequel.function(:length, :code), :code]),
              keyed("Plant", :plant_key) { |one| plant_name(one.plant_key) },
              keyed("State", :state) { |one| Words.state_word(one.state) },
              column("stands", "Stands there", raw: ->(one) { amount(one) }) { |one| amount(one) || "not counted" },
              column("gross", "Gross area (#{@units.unit(:area)})", by: :gross_m2, number: true,
                                                                    raw: ->(one) { area(one.gross_m2) }) do |one|
                @units.area(one.gross_m2)
              end,
              dated("First seen", :seen_on),
              keyed("Ground is for", :aim) { |one| aims.fetch(one.aim, "") },
              column("law", "By law", raw: ->(one) { by_law(one).join(" ") }) { |one| by_law(one).join(", ") }
            ]
          end

          def filters
            [words, filter("state", "State", states),
             filter("aim", "Ground is for", aims)]
          end

          def acts
            [act("aim", "Set what the ground is for", filter("set_aim", "Ground is for", aims)),
             act("visit", "Ask for a check", filter("due_on", "Check on", :date))]
          end

          def act_aim(patches)
            aim = wanted("set_aim")
            raise Core::BadInput.new("That is not an aim here.", field: :set_aim) unless aims.key?(aim)

            Store::Change.keep(patches, "Aim of #{Words.count(patches.size, "patch", "patches")}") do
              patches.each { |one| one.update(aim:) }
            end
            patches.size
          end

          def act_visit(patches)
            typed = { "kind" => "check", "reason" => "Asked for in a list", "wait" => "date",
                      "due_on" => wanted("due_on") }
            patches.each do |one|
              form = Recheck::Forms::Visit.new(typed, units: @units, today: @today)
              form.store(one, @property.site(@today)) ||
                raise(Core::BadInput.new("The day #{form.errors.values.first}.", field: :due_on))
            end
            patches.size
          end

          private

          # What the law asks of its plant here: "report", "control", "move".
          def by_law(patch)
            return [] unless patch.plant_key

            (@by_law ||= {})[patch.plant_key] ||= @property.duties_of(patch.plant).map { |duty| duty.asked.to_s }.uniq
          end

          def with(rows) = rows.each { |one| one.associations[:property] = @property }
          def amount(patch) = patch.history.there(@today)&.then { |there| Stands.amount(there) }
          def area(square_metres) = square_metres && @units.from_si(:area, square_metres).round(1)
          def states = Survey::PatchList::ORDER.to_h { |state| [state, Words.state_word(state)] }
          def aims = Core::Knowledge.shipped.aims.transform_values(&:label)

          def narrowed(found, key, value)
            key == "q" ? found.where(id: on_patches(value)) : found.where(key.to_sym => value)
          end
        end
      end
    end
  end
end
