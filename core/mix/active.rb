# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # An active ingredient as it is sold. acid: what acts, which several salts and esters carry; stock: % active
      # ingredient in the concentrate; molar masses in g/mol; keeps_h: how long a mix of it is good, nil where
      # nobody says.
      Active = Value.define(:key, :name, :acid, :acid_molar_mass, :salt_molar_mass, :stock, :carrier, :aquatic,
                            :rainfast_h, :keeps_h, :targets, :note, :source) do
        # Acid equivalent per unit of active ingredient, 0..1.
        def acid_share = acid_molar_mass / salt_molar_mass
      end
    end
  end
end
