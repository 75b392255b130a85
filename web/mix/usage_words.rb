# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What the mix room says of what was used.
      module UsageWords
        # What a label keeps off a ground, by kind (Store::ClosedGround).
        CLOSED = { closed: "Nobody goes in", unplanted: "Nothing is planted" }.freeze

        module_function

        # What a record of work calls for, sentences: stubs that were missed, a label that was broken, its year past. It
        # happened, so it is kept, and marked.
        def of(work, units)
          against = work.against_label.map { |text| units.fill(text) }
          [alarm(work.stub_check), *against, *past(work, units)].compact
        end

        # What was poured: "Stump concentrate, 100 mL; Basal oil, 20 mL"; the active, where no product is named.
        def poured(work, units)
          named = work.poured.map { |one| [one.label.name, one.ml, one.grams] }
          named = [[Core::Knowledge.shipped.actives[work.active_key].name, work.product_ml]] if named.empty?
          named.map { |name, ml, grams| "#{name}, #{measured(ml, grams, units) || "amount not said"}" }.join("; ")
        end

        # A volume, or a mass of what is weighed; nil where neither is known.
        def measured(millilitres, grams, units)
          millilitres ? units.volume(millilitres) : grams && units.mass(grams)
        end

        # What a record brought past its label's year.
        def past(work, units)
          work.past_label.map do |limit|
            "#{limit.acid.capitalize}: #{ground_dose(limit.lies, units)} has been applied this year. The label " \
              "allows #{ground_dose(limit.most, units)} in a year."
          end
        end

        # After a day on stubs; nil where it fits or cannot be said.
        def alarm(finding)
          case finding&.kind
          when :short
            "The mix used is enough for about #{finding.enough_for} of #{finding.stems} stubs (#{finding.low} to " \
            "#{finding.high}). Before you leave, check every stub for dye."
          when :heavy
            "The mix used is enough for about #{finding.enough_for} stubs, but #{finding.stems} were counted. Either " \
            "mix dripped, or some stubs were not counted."
          end
        end

        # Past what the label allows in a year.
        def over(limit, units)
          "With this, #{ground_dose(limit.after, units)} of #{limit.acid} acid would lie on it this year; the " \
            "label's most is #{ground_dose(limit.most, units)}."
        end

        # "1.2 kg/ha"
        def ground_dose(g_per_ha, units)
          "#{units.figure(units.from_si(:ground_dose, g_per_ha))} #{units.unit(:ground_dose)}"
        end

        # "20 % of the volume", "0.1 g/L" of what is weighed.
        def strength(strength)
          percent = strength.product_percent
          return "#{Core::Mix::Product.short(percent)} % of the volume" if percent

          "#{Core::Mix::Product.short(strength.share * 1000)} g/L"
        end

        # Whose numbers a dose is.
        def usage(usage, units, vessel)
          return unless usage&.own?

          said = vessel == "jar" ? ->(ml) { units.volume(ml) } : ->(ml) { units.rate(ml / 1000) }
          middle = "#{said[usage.median]}#{" a stem" if vessel == "jar"}"
          "From #{usage.count} records here: #{middle}, usually #{said[usage.low]} to #{said[usage.high]} " \
            "(80 % range)."
        end
      end
    end
  end
end
