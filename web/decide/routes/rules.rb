# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Routes
        # The rule book: every rule as a practitioner reads it, switched off or added for a property.
        module Rules
          def self.registered(app)
            app.get "/decide/rules" do
              board = RulesBoard.new(property, today)
              show("decide/rules", board:, form: Forms::LocalRule.untouched(units:, today:), off: Form::Blank.new) do
                Answers.rule_book(board)
              end
            end

            app.post "/decide/rules/off" do
              off = Forms::RuleOff.new(params, units:, today:)
              if (made = off.store(property, today))
                offer_undo "/decide/rules/off/#{made.id}/undo"
                next go_to("/decide/rules##{made.rule_key}",
                           "“#{made.rule.title}” is switched off for #{property.name}.")
              end

              show "decide/rules", status: 422, board: RulesBoard.new(property, today),
                                   form: Forms::LocalRule.untouched(units:, today:), off:
            end

            app.post "/decide/rules/off/:id/undo" do
              setting = of_property(Store::RuleSetting, params["id"])
              setting.update(deleted_at: setting.deleted_at ? nil : Time.now.utc)
              go_to "/decide/rules##{setting.rule_key}",
                    "“#{setting.rule.title}” #{setting.deleted_at ? "counts again" : "is switched off again"}."
            end

            app.post "/decide/rules/local" do
              form = Forms::LocalRule.new(params, units:, today:)
              if (made = form.store(property, today))
                offer_undo "/decide/rules/local/#{made.id}/undo"
                next go_to("/decide/rules#local", "The rule counts for #{property.name} from now on.")
              end

              show "decide/rules", status: 422, board: RulesBoard.new(property, today), form:, off: Form::Blank.new
            end

            app.post "/decide/rules/local/:id/undo" do
              rule = of_property(Store::LocalRule, params["id"])
              rule.update(deleted_at: rule.deleted_at ? nil : Time.now.utc)
              offer_undo "/decide/rules/local/#{rule.id}/undo"
              go_to "/decide/rules#local", rule.deleted_at ? "The rule is taken away." : "The rule counts again."
            end
          end
        end
      end
    end
  end
end
