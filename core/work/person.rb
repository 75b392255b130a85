# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Someone who comes: roles, training and cannot are keys of knowledge/crew.yml; licensed_until: the last day of a
      # licence to apply herbicide, nil where none is known.
      Person = Value.define(:id, :name, :roles, :training, :cannot, :licensed_until) do
        # Whoever has the role and a licence that is known to hold that day; not knowing is a no.
        def licensed?(date)
          roles.to_a.include?("applicator") && !licensed_until.nil? && licensed_until >= date
        end

        # Any of these roles or trainings?
        def any?(keys) = (roles.to_a | training.to_a).intersect?(keys)
        def cannot?(keys) = cannot.to_a.intersect?(keys)

        # What somebody must share with another to be taken for them in a plan.
        def kind(date) = [licensed?(date), roles.to_a.sort, training.to_a.sort, cannot.to_a.sort]
      end
    end
  end
end
