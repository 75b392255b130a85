# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        NativeStays = Rule.new(
          :native_stays,
          about: :any, looks: %i[plant belongs schools aim],
          source: "common_practice", force: :safety,
          says: "Natives are not weeds."
        ) do |now, removal|
          next if removal.is?(:reporting)
          if now.belongs == :both
            next note("One form of it belongs here and another is the weed: be sure which this is. " \
                      "#{now.plant.spot["text"]}")
          end
          if now.stranger?
            next no("Native elsewhere, and not known from here: report it, and let someone who knows say what it is.")
          end
          next unless now.at_home?

          if now.nuisance?
            next note("Native here: take out what stands in the way, and leave the rest.") if now.aim == "access"

            next ask("Native here. In a bed, on a path or by a playground it may be taken out. Where it stands wild, " \
                     "leave it. Which is it? Say that the ground is “a way kept open” if it is one.")
          end
          next no("Native, and it harms whoever touches it: learn it, leave it, go round it.") if now.plant.hazardous?

          crowds = Knowledge.shipped.schools.fetch("crowding_natives").about?(now.plant)
          if crowds && now.school(:crowding_natives) == "thin" && removal.is?(:pulling, :cutting) && !removal.herbicide?
            note "Native here: thinned by hand, never removed."
          else
            no "Native: it belongs here#{". Thinning what crowds is another school" if crowds}."
          end
        end
      end
    end
  end
end
