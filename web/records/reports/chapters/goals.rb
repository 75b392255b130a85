# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What is wanted of the land, as its steward answered.
          class Goals < Chapter
            TITLE = "Goals"
            HERBICIDE = { "none" => "None is used here.",
                          "stem" => "On stems only: painted stumps, bark and cuts. No leaves are sprayed.",
                          "any" => "Any use that the label and the law allow." }.freeze

            private

            def write(part)
              kept = { "Herbicide" => HERBICIDE.fetch(property.stance), "Comes first" => first,
                       "The ground is for" => aims, "A patch is over" => over }
              part.table(["What", "As it is kept here"], kept.compact.to_a)
            end

            # The parts of a rank that weigh most.
            def first
              weights = property.rank_weights.select { |_, weight| weight.to_f.positive? }
              most = weights.sort_by { |key, weight| [-weight.to_f, key] }.first(3)
              names = Core::Decide::Priority::TERMS.values_at(*most.map(&:first)).compact.map(&:downcase)
              "Patches with: #{names.join("; ")}."
            end

            def aims
              found = property.live_patches.unordered.exclude(aim: nil).exclude(state: "closed").group_and_count(:aim)
                              .as_hash(:aim, :count)
              words = found.filter_map { |key, n| (aim = library.aims[key]) && "#{aim.label.downcase} (#{patches(n)})" }
              words.any? ? "#{words.join(", ").capitalize}." : nil
            end

            def over
              "When the chance that it still lives is under #{Words.percent(property.closes_below)}, and the years " \
                "of its seed and pieces are past."
            end
          end
        end
      end
    end
  end
end
