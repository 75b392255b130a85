# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Broad regions in which a plant may be looked for.
      module Regions
        NAMES = { "na_northeast" => "North America, northeast", "na_southeast" => "North America, southeast",
                  "na_midwest" => "North America, middle", "na_west" => "North America, west",
                  "na_desert" => "North America, southwest deserts", "australia" => "Australia",
                  "british_isles" => "British Isles", "west_europe" => "Western Europe" }.freeze
      end
    end
  end
end
