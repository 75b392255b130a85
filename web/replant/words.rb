# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What the replant room says.
      module Words
        FACTS = { canopy: "Canopy overhead", light: "Light", moisture: "Ground", soil: "Soil", ph: "Soil pH",
                  flood: "Flooded", deer: "Deer", salt: "Salt", fire: "Fire", house_m: "Nearest house",
                  lines: "Buried lines", view_cm: "Nothing taller than", seen: "Looked at by",
                  remnant: "Native ground beside", jobs: "Jobs to do" }.freeze

        # Months in words, runs joined, over the turn of the year too: "Oct–Feb", "Feb–May, Sep–Nov".
        def bloom_words(months)
          return "all year" if months.size == 12

          starts = months.reject { |month| months.include?(((month - 2) % 12) + 1) }
          starts.map { |first| run(months, first) }.join(", ")
        end

        def run(months, first)
          last = first
          last = (last % 12) + 1 while months.include?((last % 12) + 1)
          [first, last].uniq.map { |month| Date::ABBR_MONTHNAMES[month] }.join("–")
        end

        def replant_facts = FACTS

        # Where a native is at home, near the property first: "Missouri and 30 more states; 5 provinces of Canada".
        def native_home(native, property)
          home, places = native.at_home, Core::Knowledge.shipped.places
          told = places.filter_map do |country, told|
            parts = home.parts(country)
            next if parts.empty?

            here = told["names"][property.part] if property.country == country && parts.include?(property.part)
            others = parts.size - (here ? 1 : 0)
            [here, (parts_said(others, country, more: here) if others.positive?)].compact.join(" and ")
          end
          abroad = home.countries
          told << (abroad.size > 6 ? "#{abroad.size} countries besides" : abroad.join(", ")) if abroad.any?
          told.join("; ")
        end

        # "30 more states" where one of them was said before, "5 provinces of Canada".
        def parts_said(number, country, more:)
          part = { "Canada" => "province" }.fetch(country, "state")
          more ? count(number, "more #{part}") : "#{count(number, part)} of #{in_country(country)}"
        end

        # What is missing in a mix, and whether anything would do.
        def gap_words(gap)
          case gap.about
          when :grass
            share = (gap.what * 100.0 / Core::Replant::PlantMix::PARTS).round
            "Only #{share} % grass and sedge: too few kinds suit this place. Grass holds the soil between the flowers."
          when :third then "Only #{3 - gap.short} of three in flower from #{Date::MONTHNAMES[gap.what.first]} to " \
                           "#{Date::MONTHNAMES[gap.what.last]}."
          else "#{gap_name(gap)}: #{gap.possible ? "not within what was stated" : "nothing of the list does it"}."
          end
        end

        def gap_name(gap)
          case gap.about
          when :month then "#{Date::MONTHNAMES[gap.what]} without a flower"
          when :third then "#{Date::MONTHNAMES[gap.what.first]} to #{Date::MONTHNAMES[gap.what.last]} thin in flowers"
          when :job then "No #{Core::Replant::Native::JOBS[gap.what]}"
          when :layer then "No #{Core::Replant::Native::LAYERS[gap.what]} layer"
          when :roots then "No #{gap.what} roots"
          else "Too little grass"
          end
        end

        NO_MIX = { lock_lost: "A native that you keep does not suit this place, or is not sold in this form. Remove " \
                              "it, or choose another form.",
                   nothing_fits: "Nothing is left to choose from: the area is too small for the spacing, or too much " \
                                 "is left out.",
                   locks: "You keep more natives than the number of kinds allowed.",
                   budget: "Nothing keeps the shares within that budget.",
                   grass: "The share of grass cannot be kept with what there is.",
                   share: "The shares cannot be kept: more kinds, a larger most of one, or fewer left out." }.freeze
        def no_mix_words(why) = NO_MIX.fetch(why)
      end
    end
  end
end
