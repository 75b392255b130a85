# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Forms
        # How a property is kept: units, stance on herbicide, who is licensed.
        class Settings < Form
          class Fields < Form::Contract
            params do
              required(:name).filled(:string, max_size?: 120)
              required(:units).filled(:string, included_in?: Core::Units::SYSTEMS)
              required(:stance).filled(:string, included_in?: Core::Decide::Facts::STANCES.keys)
              required(:texture).filled(:string, included_in?: Core::Knowledge.shipped.soils.keys)
              optional(:region).filled(:string, included_in?: Core::Knowledge.shipped.region_names.keys)
              optional(:record_rule).filled(:string, included_in?: Core::Knowledge.shipped.records.keys)
              optional(:currency).filled(:string, max_size?: 4)
              optional(:paper).filled(:string, included_in?: Core::Survey::Habits::PAPERS.keys)
              optional(:grid).filled(:string, included_in?: Core::Survey::Habits::GRIDS.keys)
              optional(:dates).filled(:string, included_in?: Core::Dates::FIRST.keys)
              optional(:emergency_number).filled(:string, max_size?: 40)
              optional(:licensed).filled(:bool)
              optional(:aquatic_label).filled(:bool)
              optional(:fire_adapted).filled(:bool)
              optional(:keep_copies_days).filled(:integer, gteq?: 0, lteq?: 3650)
            end
          end

          MAY_BE_NONE = %i[region record_rule currency paper grid dates emergency_number].to_h { [_1, nil] }.freeze

          # A box that is not ticked is a no; a region that is not chosen is none; what is left empty is as its country
          # usually has it.
          def store(property)
            return false unless ok?

            property.update(licensed: false, aquatic_label: false, fire_adapted: false, **MAY_BE_NONE,
                            **values.except(:keep_copies_days))
            Store::Setting.write("keep_copies_days", values[:keep_copies_days].to_s) if values[:keep_copies_days]
            true
          end
        end
      end
    end
  end
end
