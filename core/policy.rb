# frozen_string_literal: true

module Thistle
  module Core
    # Who may do what with which kind of thing (knowledge/roles.yml). A role is a key of `roles`, or KEEPER or
    # SIGNED_IN; an act one of ACTS; a thing a key of the table.
    class Policy
      ACTS = %w[read add change take_back].freeze
      KEEPER, SIGNED_IN = "keeper", "signed_in"

      # roles: {key => {"text", "says"}}; own_days: how long a record is its writer's to put right.
      attr_reader :roles, :own_days

      def initialize(table)
        @roles, @own_days, @things = table.values_at("roles", "own_days", "things")
        freeze
      end

      # May someone with one of these roles do so, whoever's it is? Raises KeyError for a thing or act unknown.
      def allows?(roles, act, thing) = any?(roles, @things.fetch(thing), act)

      # May they do so with what is their own?
      def own?(roles, act, thing) = any?(roles, @things.fetch(thing).fetch("own", {}), act)

      private

      def any?(roles, row, act)
        raise KeyError, "no act: #{act}" unless ACTS.include?(act)

        row.fetch(act, []).any? { |role| roles.include?(role) }
      end
    end
  end
end
