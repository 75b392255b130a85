# frozen_string_literal: true

require "open3"
require "test_helper"

module Thistle
  # What a phone says beside a field while nobody can be asked is what the server would say, over every form, field and
  # kind of slip: it refuses nothing that the server takes.
  class PocketChecksTest < Minitest::Test
    SLIPS = ["", "x", "-1", "0", "1", "2.5", "2,5", "1 200", "9999999999", "2026-13-45", "2026-05-11", "none",
             "y" * 2500].freeze
    FORMAT = /invalid format/ # told by the server alone

    def setup = Testing.demo(fresh: true)

    def test_the_same_words_as_the_server
      cases = checks.except("herbicide").flat_map do |route, fields|
        fields.keys.product(SLIPS).map { |field, slip| [route, field, slip] }
      end
      said = ask(cases.map { |route, field, slip| [route.sub(":id", "5"), [[field, slip]]] })
      wrong = cases.zip(said).filter_map do |(route, field, slip), words|
        theirs = server(route, field, slip)
        [route, field, slip[0, 20], words[field], theirs] if words[field] && !theirs.include?(words[field])
      end

      assert_empty wrong
      caught = cases.zip(said).count { |(_, field, _), words| words[field] }

      assert_operator caught, :>, cases.size / 4
    end

    def test_herbicide_asks_for_its_record
      fields = { method_key: "cut_stump", done_on: "2026-05-11", crew_size: "1", hours: "1" }.to_a
      said = ask([["POST /work/treatments", fields]]).first

      assert_equal %w[active_key applicator product], said.keys.sort
    end

    private

    def checks = Web::Pocket::Checks.all

    def ask(cases)
      script = "const { check } = require('#{ROOT}/web/assets/js/checks.js'); " \
               "const told = JSON.parse(require('fs').readFileSync(0)); " \
               "console.log(JSON.stringify(told.cases.map(([route, fields]) => check(told.table, route, fields))))"
      out, status = Open3.capture2("node", "-e", script, stdin_data: JSON.generate(table: checks, cases:))

      assert_predicate status, :success?
      JSON.parse(out)
    end

    # All that the server says of a field with this slip in it.
    def server(route, field, slip)
      form = Web::Pocket::Checks::FORMS.fetch(route)
      made = form.new({ field => slip }, units: Core::Units.new, today: Testing::TODAY)
      form::Fields.new(today: Testing::TODAY).call({ field => slip }.reject { |_, v| v.empty? })
                  .errors.to_h.fetch(field.to_sym, []) | [made.error(field)].compact
    end
  end
end
