# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Forms
        # What a management plan is to hold: chapters, years of its calendar, who makes it, and words of one's own.
        class LandPlan < Form
          CHAPTERS = Reports::ManagementPlan::CHAPTERS

          class Fields < Form::Contract
            params do
              required(:made_by).filled(:string, max_size?: 80)
              required(:years).filled(:integer, gteq?: 1, lteq?: 10)
              optional(:parts).filled(:string)
              CHAPTERS.each_key { |key| optional(:"note_#{key}").filled(:string, max_size?: 4000) }
            end
            rule(:parts) { key.failure("are needed: tick at least one chapter") unless value }
          end

          # A plan like the one before, with its words; all chapters where there is none.
          def self.like(plan, units, today)
            asked = plan&.asked_for || {}
            notes = asked.fetch("notes", {}).transform_keys { |key| "note_#{key}" }
            untouched({ "parts" => asked.fetch("parts", CHAPTERS.keys), "years" => asked.fetch("years", 5).to_s,
                        "made_by" => plan&.made_by.to_s, **notes }, units:, today:)
          end

          # Ticked chapters are one answer.
          def initialize(params, **context)
            ticked = Array(params.to_h["parts"]).grep(String) & CHAPTERS.keys
            super(params.to_h.merge("parts" => ticked.join(",")), **context)
          end

          def ticked?(key) = self["parts"].to_s.split(",").include?(key)
          def noted? = CHAPTERS.keys.any? { |key| !self["note_#{key}"].to_s.empty? }

          # As Store::LandPlan keeps it; nil with errors.
          def asked
            return unless ok?

            notes = CHAPTERS.keys.to_h { |key| [key, values[:"note_#{key}"]] }.compact
            { "parts" => values[:parts].split(","), "years" => values[:years], "notes" => notes }
          end
        end
      end
    end
  end
end
