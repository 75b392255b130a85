# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        BrittleInAutumn = Rule.new(
          :brittle_in_autumn,
          about: :aquatic, looks: %i[phases date season],
          source: "common_practice", turns: { first_frost: -30 },
          says: "Water plants are not pulled in autumn, when stems break and every piece roots."
        ) do |now|
          frost = now.anchor(:first_frost)
          if frost && now.date >= frost - 30
            wait "Stems are brittle in autumn and every piece roots. Early summer is the time."
          elsif !now.in_leaf?
            wait "Nothing stands up to be seen yet."
          end
        end
      end
    end
  end
end
