# frozen_string_literal: true

module Thistle
  module Store
    # A season plan: what was asked, and what the solver answered.
    class SeasonPlan < Sequel::Model(:season_plans)
      many_to_one :property, class: "Thistle::Store::Property"

      def asked_for = JSON.parse(asked)
      def answered = answer && JSON.parse(answer, symbolize_names: true)
      def solving? = status == "solving"
    end
  end
end
