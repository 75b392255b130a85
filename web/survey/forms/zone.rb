# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # Ground that is not a patch, and how far to keep from it.
        class Zone < Drawn
          class Fields < Form::Contract
            params do
              required(:geometry).filled(:string)
              required(:kind).filled(:string)
              optional(:name).filled(:string, max_size?: 80)
              optional(:keep).filled(:float, gteq?: 0, lteq?: 5000)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:kind) { key.failure("is needed: what is it?") unless Core::Knowledge.shipped.zone_kinds.key?(value) }
          end

          # The stored zone, or nil with errors.
          def store(property)
            shape = read_shape or return
            Store::Zone.draw(property, shape, kind: values[:kind], name: values[:name], keep_m: si(:keep, :length),
                                              note: values[:note])
          end
        end
      end
    end
  end
end
