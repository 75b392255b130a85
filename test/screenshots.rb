# frozen_string_literal: true

# `rake screenshots`: one picture of each main view from the demo data, into docs/screenshots.
ENV["MT_NO_AUTORUN"] = "1"
require "bundler/setup"
$LOAD_PATH.unshift __dir__
require "support/browser"

Minitest.singleton_class.define_method(:run) { |*| true } # nothing to test here

module Thistle
  # Walks the main views and takes their pictures.
  class Screenshots
    include Capybara::DSL
    include Browser

    FOLDER = "#{ROOT}/docs/screenshots".freeze
    VIEWS = {
      "today" => "/",
      "identify" => "/identify?c[habit]=shrub&c[leaf_arrangement]=opposite&c[leaf_margin]=smooth&c[bark]=shaggy",
      "plant" => "/identify/plants/tree_of_heaven",
      "survey" => "/survey", "patch" => "/survey/patches/%{q07}",
      "season" => "/season", "fit" => "/season/fit?work=foliar", "decide" => "/decide?patch=%{q05}",
      "first" => "/decide/first", "plan" => "/decide/plan", "report" => "/records/reports/plans/1",
      "mix" => "/mix?patch=%{q05}", "work" => "/work/days/1", "recheck" => "/recheck",
      "outlook" => "/recheck/patches/%{q07}/outlook",
      "replant" => "/replant?patch=%{q05}", "bed" => "/replant/plans/1"
    }.freeze
    PHONE = { "phone-record" => "/pocket/record?kind=picture",
              "phone-check" => "/recheck/patches/%{q06}?resprouts=5&missed=2&seedlings=11" }.freeze

    def call
      Testing.demo(fresh: true)
      solve
      FileUtils.mkdir_p(FOLDER)
      { "desk" => VIEWS, "phone" => PHONE }.each { |size, views| views.each { |name, path| take(name, path, size) } }
    end

    private

    # A season of the preserve's crew.
    def solve
      Testing.planting_plan("Q-05")
      property = Store::Property.first
      asked = { from: Testing::TODAY, weeks: 26, hours: 12, other: {}, goal: "stop_spread",
                weights: Core::Knowledge.shipped.goals["stop_spread"].weights, pins: [], bans: [] }
      plan = Store::SeasonPlan.create(property_id: property.id, asked: JSON.generate(asked))
      Web::Decide::Planner.new(plan, Testing::TODAY).call
    end

    def take(name, path, size)
      resize size
      patches = %w[Q-04 Q-05 Q-06 Q-07].to_h { |code| [code.downcase.delete("-").to_sym, Testing.patch(code).id] }
      visit format(path, **patches)
      page.has_css?("#map[data-ready]") if page.has_css?("#map", wait: 0)
      sleep 0.4
      page.driver.save_screenshot("#{FOLDER}/#{name}.png")
      puts "#{name}.png"
    end
  end
end

Thistle::Screenshots.new.call
