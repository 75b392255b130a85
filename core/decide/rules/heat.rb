# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Heat = Rule.new(
          :heat,
          about: %i[bark_herbicide foliar], looks: %i[day hours],
          source: "memory", force: :legal,
          says: "No spraying and no oil on bark above the label’s temperature."
        ) do |now, removal|
          hot = now.kept_off_by(removal, :temperature) or next
          high = hot.limit["high"]
          next if hot.unknown || hot.value <= high

          if removal.is?(:foliar) then wait "Above {temperature:#{high}} drops dry before they enter, and leaves shut."
          else wait "Above {temperature:#{high}} product turns to gas and reaches broadleaf natives."
          end
        end
      end
    end
  end
end
