# frozen_string_literal: true

require "test_helper"

module Thistle
  # The questions of the bench: each asks for the fact that it sets, and its safe answer opens nothing that safety holds
  # shut.
  class UnknownsTest < Minitest::Test
    Unknowns = Core::Decide::Unknowns
    PLANTS = %w[tree_of_heaven autumn_olive garlic_mustard giant_hogweed buffelgrass eurasian_watermilfoil
                english_ivy].freeze

    def bench(plant, **more)
      facts = Core::Decide::Facts.new(plant: Testing.plant(plant), settled: true, date: Date.new(2026, 7, 20),
                                      stance: "any", **more)
      Core::Decide::Bench.new(facts, Testing.site)
    end

    # Yes to "Is it sure that nothing was ever sprayed or dumped here?" is what lets fruit be eaten; no and no answer
    # are not.
    def test_each_question_asks_for_the_fact_that_it_sets
      assert_match(/\AIs it sure that nothing was ever sprayed/, Unknowns::QUESTIONS.fetch(:clean_site).text)
      harvest = Core::Knowledge.shipped.removal("fruit_harvest")
      kinds = [nil, false, true].map do |clean_site|
        bench("autumn_olive", clean_site:, size: "thumb", stage: :ripe_seed).kind(harvest)
      end

      assert_equal %i[no no go], kinds
      words = { licensed: /whom the law allows/, natives_near: /desirable plants in reach/, full_cover: /full cover/,
                burn_permit: /permit/ }
      words.each { |fact, asked| assert_match asked, Unknowns::QUESTIONS.fetch(fact).text }
    end

    def test_the_safe_answer_opens_nothing_that_safety_holds_shut
      forces = %i[safety legal]
      PLANTS.each do |key|
        silent = bench(key)
        Unknowns::QUESTIONS.each do |fact, question|
          answered = bench(key, fact => question.safe)
          silent.removals.each do |removal|
            held = Core::Decide::Rule.all.select do |rule|
              forces.include?(rule.force) && rule.looks.include?(fact) && silent.facts.rules.for(removal).include?(rule)
            end
            held.select { |rule| rule.judge(silent.situation, removal)&.kind == :no }.each do |rule|
              assert_equal :no, rule.judge(answered.situation, removal)&.kind,
                           "#{key}, #{removal.key}: #{fact} answered #{question.safe} opened #{rule.key}"
            end
          end
        end
      end
    end
  end
end
