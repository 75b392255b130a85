# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Reads numbers of a desk that has value(field), errors and units; what is none is said beside its field.
      module Numbers
        def number(field) = said(field, Core::Decimal.read(value(field).to_s, comma: units.comma))

        # mL, typed in the property's unit or with a unit of its own.
        def volume(field)
          complaining do
            said(field, Core::Mix::Typed.volume(value(field), unit: units.unit(:volume), comma: units.comma,
                                                              field: field.to_sym))
          end
        end

        # The same where nothing typed is no complaint yet.
        def number_typed(field) = value(field).to_s.empty? ? nil : number(field)
        def volume_typed(field) = value(field).to_s.empty? ? nil : volume(field)

        # What the block answers; what it complains of is said beside its field, and the answer is nil.
        def complaining
          yield
        rescue Core::BadInput => e
          errors[e.field] = e.message
          nil
        end

        private

        def said(field, found)
          errors[field.to_sym] = Core::Decimal.complaint(value(field), "is not a number") unless found
          found
        end
      end
    end
  end
end
