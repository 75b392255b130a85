# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # Quiet patches: which still may live, which to look at with the hours there are, and when a patch counts as over.
      class QuietBoard
        HOURS = 8.0

        attr_reader :property, :errors

        def initialize(params, property, today)
          @params, @property, @errors = params, property, {}
          @read = Store::QuietLooks.new(property, today)
        end

        def looks = @read.all
        def others = @read.others

        # Crew hours, as typed.
        def typed = @params["hours"].is_a?(String) ? @params["hours"] : HOURS.to_s.delete_suffix(".0")
        def error(field) = errors[field]

        # Ids of the patches to look at.
        def chosen
          @chosen ||= @read.chosen(hours).map { |look| look.patch.id }
        rescue Core::BadInput => e
          @errors[:hours] = e.message
          @chosen = []
        end

        # Hours that the chosen looks take.
        def taken = looks.select { |look| chosen.include?(look.patch.id) }.sum(&:hours)

        private

        def hours
          Core::Decimal.read(typed) || raise(Core::BadInput.new("is not a number", field: :hours))
        end
      end
    end
  end
end
