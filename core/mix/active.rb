# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # An active ingredient as it is sold: planning values, all behind the label. acid: what acts, which several salts
      # and esters carry; stock: % active in the concentrate; acid_g: grams of acid on a litre of it (on a kg of a
      # dry one); molar masses in g/mol; form: how it is made up; keeps_h: how long a mix of it is good, nil where
      # nobody says; uses: where it belongs; warmest: °C. replant_days: days until what may be planted.
      Active = Value.define(:key, :name, :acid, :acid_molar_mass, :salt_molar_mass, :stock, :acid_g, :form, :aquatic,
                            :rainfast_h, :keeps_h, :warmest, :uses, :kills, :only, :woody, :suits, :weak, :soil_days,
                            :moves, :replant_days, :bioassay, :most_g_ha, :hazards, :hard_water, :note, :source) do
        def inspect = "#<#{self.class.name} #{key}>"

        # Acid equivalent per unit of active ingredient, 0..1.
        def acid_share = acid_molar_mass / salt_molar_mass

        # Are acid and active one, as labels count them?
        def one? = acid_molar_mass == salt_molar_mass

        # {"carrier", "target", "acid_g_l"} of a use, a key of Product::USES; nil where it does not belong.
        def use(kind) = uses[kind.to_s]

        # Grams of active on a litre, or a kg, as it is usually sold; nil where nobody says.
        def grams = acid_g && (acid_g / acid_share)
      end
    end
  end
end
