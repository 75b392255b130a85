# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # One way in which labels say how strong a mix is: of what (product, active, acid), in which unit. The unit tells
      # the rest: a share, an amount in a volume of mix, an amount on the ground.
      Way = Value.define(:key, :of, :unit, :over, :label, :group) do
        def percent? = unit == "%"
        def weight? = unit == "% w/w"
        def ground? = group == :ground
        def mass? = !percent? && !weight? && numerator.mass?

        # Its size, as a Quantity: “2 qt/100 gal” is 2 of it.
        def size = Quantity.of(1.0 / over, unit)

        private

        def numerator = Quantity.of(1, unit.split("/").first)
      end

      # The ways, in the order in which pages list them.
      class Way
        GROUPS = { mix: "in the mix", weight: "by weight", ground: "on the ground" }.freeze
        # {group => {of => {key => unit}}}; a number before the lower half is how many of it: "qt/100 gal".
        TABLE = {
          mix: {
            product: { product: "%", ounces: "fl oz/gal", ml_per_l: "mL/L", ml100l: "mL/100 L",
                       floz100: "fl oz/100 gal", pt100: "pt/100 gal", qt100: "qt/100 gal", gal100: "gal/100 gal",
                       g100l: "g/100 L", oz100: "oz/100 gal", lb100: "lb/100 gal" },
            active: { active: "%", grams: "g/L", lb_active100: "lb/100 gal" },
            acid: { acid: "%", acid_grams: "g/L", lb_acid100: "lb/100 gal" }
          },
          weight: {
            product: { weight: "% w/w" },
            active: { active_weight: "% w/w" },
            acid: { acid_weight: "% w/w" }
          },
          ground: {
            product: { l_ha: "L/ha", ml_ha: "mL/ha", ml100m2: "mL/100 m²", floz_ac: "fl oz/ac", pt_ac: "pt/ac",
                       qt_ac: "qt/ac", gal_ac: "gal/ac", floz1000ft2: "fl oz/1000 ft²", g_ha: "g/ha",
                       kg_ha: "kg/ha", oz_ac: "oz/ac", lb_ac: "lb/ac" },
            active: { kg_active_ha: "kg/ha", g_active_ha: "g/ha", lb_active_ac: "lb/ac" },
            acid: { kg_acid_ha: "kg/ha", g_acid_ha: "g/ha", lb_acid_ac: "lb/ac" }
          }
        }.freeze

        # "acid/100 gal" of "lb/100 gal"
        def self.said(of, unit)
          return "% #{of} by weight of the mix" if unit == "% w/w"
          return "% #{of}" if unit == "%"

          of == :product ? unit : unit.sub("/", " #{of}/")
        end

        # "qt/100 gal" as ["qt/gal", 100]
        def self.parted(unit)
          amount, many, per = unit.match(%r{\A(.+?)(?:/(\d+)? ?(.+))?\z}).captures
          [[amount, per].compact.join("/"), (many || 1).to_i]
        end
        private_class_method :said, :parted

        ALL = TABLE.flat_map do |group, by|
          by.flat_map do |of, units|
            units.map do |key, unit|
              size, over = unit.start_with?("%") ? [unit, 1] : parted(unit)
              new(key: key.to_s, of:, unit: size, over:, group:, label: said(of, unit))
            end
          end
        end.to_h { |way| [way.key, way] }.freeze

        # What people and labels write for it, besides its own label.
        ALSO = { "%" => "product", "% v/v" => "product", "% vol" => "product", "% ai" => "active", "% ae" => "acid",
                 "% w/w" => "weight", "g/l" => "grams", "g ai/l" => "grams", "g ae/l" => "acid_grams",
                 "lb ai/ac" => "lb_active_ac", "lb ae/ac" => "lb_acid_ac", "kg ai/ha" => "kg_active_ha",
                 "kg ae/ha" => "kg_acid_ha", "g ai/ha" => "g_active_ha", "g ae/ha" => "g_acid_ha",
                 "lb ai/100 gal" => "lb_active100", "lb ae/100 gal" => "lb_acid100", "oz/gal" => "ounces",
                 "ml/100 l" => "ml100l" }.freeze
        BY_LABEL = ALL.to_h { |key, way| [way.label.downcase, key] }.merge(ALSO).freeze

        # The Way of a unit as it was typed, “qt/ac”, “lb ae/acre”; nil for none.
        def self.typed(text)
          plain = text.to_s.downcase.squeeze(" ").strip.sub(" per ", "/").gsub(%r{\s*/\s*}, "/")
          plain = plain.sub(/\bacres?\b/, "ac").sub(/\bgallons?\b/, "gal").sub(/\b(lit[re]{2}s?)\b/, "l")
          ALL[BY_LABEL[plain]]
        end
      end
    end
  end
end
