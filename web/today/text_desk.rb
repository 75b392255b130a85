# frozen_string_literal: true

module Thistle
  module Web
    module Today
      # Reads what is looked for in records: q, kind, from, to, who, plant, here (the property at hand alone), page.
      class TextDesk
        # What each kind of Store::Texts is called, and where its record stands: an id, or the patch's.
        KINDS = {
          "patch" => ["Patch", "/survey/patches/%<patch>d"], "observation" => ["Sight", "/records/observation/%<id>d"],
          "treatment" => ["Treatment", "/records/treatment/%<id>d"], "check" => ["Check", "/records/check/%<id>d"],
          "search" => ["Search", "/survey/searches"], "sighting" => ["Mark of the year", "/season"],
          "planting" => ["Planting", "/records/planting/%<id>d"],
          "planting_plan" => ["Planting plan", "/replant/plans/%<id>d"], "person" => ["Person", "/work/people/%<id>d"],
          "product" => ["Product", "/mix/shelf/%<id>d"], "sheet" => ["Specialist’s sheet", "/identify/reports/%<id>d"],
          "work_day" => ["Work day", "/work/days/%<id>d"], "zone" => ["Zone", "/survey/zones"],
          "layer" => ["Layer", "/survey/layers"], "tool" => ["Tool", "/work/kit/%<id>d"],
          "trial" => ["Trial", "/recheck/trials/%<id>d"], "course" => ["Course", "/decide/courses/%<id>d"],
          "local_rule" => ["Rule of this ground", "/decide/rules"],
          "picture" => ["Photograph", "/survey/patches/%<patch>d"], "seed" => ["Seed lot", "/replant/seed/%<id>d"],
          "gather_place" => ["Place to gather", "/replant/gather"],
          "count" => ["Survival count", "/survey/patches/%<patch>d"],
          "land_plan" => ["Management plan", "/records/reports/plans/%<id>d"]
        }.freeze
        # What each is a thing of (knowledge/roles.yml).
        THINGS = {
          "patch" => "land", "observation" => "record", "treatment" => "record", "check" => "record",
          "search" => "search", "sighting" => "land", "planting" => "record", "planting_plan" => "planting",
          "person" => "people", "product" => "shelf", "sheet" => "sheet", "work_day" => "day", "zone" => "land",
          "layer" => "layer", "tool" => "kit", "trial" => "trial", "course" => "choice", "local_rule" => "rules",
          "picture" => "picture", "seed" => "seed", "gather_place" => "gathering", "count" => "planting",
          "land_plan" => "report"
        }.freeze
        NARROWING = %w[kind from to who plant here].freeze

        attr_reader :errors, :page

        # property: at hand; nil before there is any. places: ids of the properties to look on; kinds: those that
        # whoever asks may read.
        def initialize(params, property, places:, kinds: KINDS.keys)
          @params, @property, @errors = params, property, {}
          @places, @kinds = places, kinds
          @page = [Whole.read(params["page"]), 10_000].min
          texts
        end

        def asked? = texts.asked?
        def narrowed? = NARROWING.any? { |key| self[key] }
        def total = shown.total
        def rows = @rows ||= shown.page(page)
        def after = total > (page + 1) * Store::Texts::LISTED ? page + 1 : nil

        # What was searched for instead, where what was typed stands nowhere; nil else.
        def instead = texts.total.zero? && (near = texts.nearest) && near.total.positive? ? near.words.join(" ") : nil

        # The value of a filter, nil for none.
        def [](key)
          text = @params[key]
          text.is_a?(String) && !text.strip.empty? ? text.strip[0, 200] : nil
        end

        # The query of the same search, with changes.
        def query(changes = {})
          asked = ["q", *NARROWING].to_h { |key| [key, self[key]] }.merge(changes)
          Rack::Utils.build_query(asked.compact)
        end

        def label(found) = KINDS.fetch(found.kind).first
        def address(found) = format(KINDS.fetch(found.kind).last, id: found.id, patch: found.patch_id.to_i)

        # {id => Patch} of the rows, read at once.
        def patches = @patches ||= Store::Patch.where(id: rows.filter_map(&:patch_id).uniq).as_hash(:id)

        private

        def texts
          @texts ||= Store::Texts.new(self["q"], kind: (self["kind"] if KINDS.key?(self["kind"])), from: day("from"),
                                                 to: day("to"), who: self["who"], plant:,
                                                 property_id: (@property&.id if self["here"]),
                                                 places: @places, kinds: @kinds)
        end

        def shown = @shown ||= texts.total.zero? ? texts.nearest || texts : texts
        def plant = Core::Knowledge.shipped.plants.key?(self["plant"]) ? self["plant"] : nil

        def day(key)
          self[key] && Date.strptime(self[key], "%Y-%m-%d").tap { |on| raise Date::Error unless on.year < 10_000 }
        rescue Date::Error
          errors[key.to_sym] = "is not a day, such as 2026-05-12"
          nil
        end
      end
    end
  end
end
