# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        BrittleInAutumn = Rule.new(
          :brittle_in_autumn,
          about: :aquatic, looks: %i[phases date season],
          source: "common_practice", turns: { first_frost: -30 },
          says: "Water plants are pulled when they stand up; in autumn it is harder, " \
                "since stems break and every piece roots."
        ) do |now|
          frost = now.anchor(:first_frost)
          if frost && now.date >= frost - 30
            note "Harder in autumn: stems are brittle and every piece roots. Slow hands, nets below, " \
                 "and more fragments to catch."
          elsif !now.in_leaf?
            wait "Nothing stands up to be seen yet."
          end
        end
      end
    end
  end
end
