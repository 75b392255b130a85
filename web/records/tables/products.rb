# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # Products on the group's shelf.
        class Products < Table
          include GroupList

          def self.title = "Products"
          def self.start = ["/mix/shelf/new", "Type a label"]
          def dataset = Store::Product.live.here
          def address(product) = "/mix/shelf/#{product.id}"
          def filters = [words("q", "Name")]
          def acts = [act("off", "Take off the shelf")]

          def columns
            @columns ||= [
              plain("Name", :name, by: Sequel.function(:lower, :name)),
              column("contents", "Contents") { |one| one.label.ingredients.map(&:name).join(" and ") },
              plain("Registration", :registration),
              column("left", "Left (#{@units.unit(:volume)})", number: true, raw: ->(one) { left(one) }) do |one|
                ml = one.on_hand_ml(used)
                ml ? @units.volume([ml, 0].max) : "not counted"
              end,
              dated("Expires", :expires_on), plain("Kept at", :kept_at)
            ]
          end

          private

          def used = @used ||= Store::Product.used
          def left(product) = product.on_hand_ml(used)&.then { |ml| @units.from_si(:volume, [ml, 0].max).round(1) }
          def narrowed(found, _, value) = found.where(Sequel.ilike(:name, "%#{found.escape_like(value)}%"))
        end
      end
    end
  end
end
