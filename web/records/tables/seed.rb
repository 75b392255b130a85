# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # Seed lots on the group's shelf.
        class Seed < Table
          include GroupList

          def self.title = "Seed lots"
          def self.start = ["/replant/seed", "Put seed on the shelf"]
          def dataset = Store::SeedOnHand.live.here
          def address(lot) = "/replant/seed/#{lot.id}"
          def filters = [words("q", "Lot or native")]
          def acts = [act("off", "Take off the shelf")]

          def columns
            @columns ||= [
              keyed("Native", :native_key) { |one| one.native.name },
              plain("Lot", :name, by: Sequel.function(:lower, :name)),
              column("amount", "How much (#{@units.unit(:mass)})", by: :grams, number: true,
                                                                   raw: ->(one) { mass(one) }) do |one|
                @units.mass(one.grams)
              end,
              column("germination", "Germination (%)", by: :germination, number: true,
                                                       raw: ->(one) { percent(one) }) { |one| percent(one).to_s },
              dated("Tested", :tested_on), plain("From where", :origin)
            ]
          end

          private

          def mass(lot) = @units.from_si(:mass, lot.grams).round(2)
          def percent(lot) = lot.germination && (lot.germination * 100).round(1)

          def narrowed(found, _, value)
            like = "%#{found.escape_like(value)}%"
            natives = Core::Knowledge.shipped.palette.values.select { |one| one.name.downcase.include?(value.downcase) }
            found.where(Sequel.ilike(:name, like) | { native_key: natives.map(&:key) })
          end
        end
      end
    end
  end
end
