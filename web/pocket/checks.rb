# frozen_string_literal: true

require "dry/schema"

Dry::Schema.load_extensions(:json_schema)

module Thistle
  module Web
    module Pocket
      # What a form's contract asks of each field, for a phone that has nobody to ask: {route => {field => {…}}}. Rules
      # that look at several fields or at records are the server's; but what herbicide asks stands here too.
      module Checks
        FORMS = { "POST /work/treatments" => Work::Forms::Treatment, "POST /recheck/checks" => Recheck::Forms::Check,
                  "POST /recheck/tasks" => Recheck::Forms::Visit, "POST /survey/patches" => Survey::Forms::Patch,
                  "PUT /survey/patches/:id" => Survey::Forms::Patch,
                  "POST /survey/patches/:id/again" => Survey::Forms::Again,
                  "POST /survey/searches" => Survey::Forms::Search,
                  "POST /season/sightings" => Season::Forms::Sighting }.freeze
        TOLD = { "minimum" => :least, "maximum" => :most, "exclusiveMinimum" => :above, "enum" => :among,
                 "maxLength" => :letters }.freeze
        ASKED_OF_HERBICIDE = %w[active_key product applicator].freeze

        module_function

        def all = @all ||= FORMS.to_h { |route, form| [route, of(form)] }.merge("herbicide" => herbicide).freeze

        # {field => {needed, kind, least, most, above, among, letters}} of a form.
        def of(form)
          told = form::Fields.schema.json_schema(loose: true)
          told[:properties].to_h do |field, said|
            said = said.transform_keys(&:to_s)
            kind = said["format"] || said["type"]
            limits = TOLD.filter_map { |name, ours| [ours, said[name]] if said[name] }.to_h
            [field.to_s, { needed: told[:required].include?(field.to_s), kind:, **limits }.compact]
          end
        end

        # Fields that a method with herbicide asks for.
        def herbicide
          methods = Core::Knowledge.shipped.methods_of_removal.values.select(&:herbicide?).map(&:key)
          { methods:, asked: ASKED_OF_HERBICIDE }
        end
        private_class_method :of, :herbicide
      end
    end
  end
end
