# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what people wrote, found by its words over all records (FTS5, kept by triggers: migration 034). Every
    # word must be there, the beginning of one is enough, accents and capitals do not matter. Where nothing is found,
    # words that stand nowhere are read as the nearest that do.
    class Texts
      # kind: a key of KINDS; id of the record; patch_id, property_id, on_day where it has them; words: what was found,
      # the words between MARK.
      Found = Core::Value.define(:kind, :id, :patch_id, :property_id, :on_day, :words)
      MARK = ["\u2402", "\u2403"].freeze
      # By the number of each kind in migration 034.
      KINDS = { "patch" => 1, "observation" => 2, "treatment" => 3, "check" => 4, "search" => 5, "sighting" => 6,
                "planting" => 7, "planting_plan" => 8, "person" => 9, "product" => 10, "sheet" => 11, "work_day" => 12,
                "zone" => 13, "layer" => 14, "tool" => 15, "trial" => 16, "course" => 17, "local_rule" => 18,
                "picture" => 19, "seed" => 20, "gather_place" => 21, "count" => 22, "land_plan" => 23 }.freeze
      MOST_WORDS = 12
      LISTED = 50

      attr_reader :words

      # Kinds that are a group's own, and where they stand.
      GROUPED = { "person" => :people, "product" => :products, "tool" => :kit_items, "seed" => :seed_lots }.freeze

      # asked: what was typed; the rest narrows it: kind, from and to (days), who, plant (key), property_id;
      # places: ids of properties, nil for all; kinds: those to look among.
      def initialize(asked, kind: nil, from: nil, to: nil, who: nil, plant: nil, property_id: nil,
                     places: nil, kinds: KINDS.keys)
        @words, @who = split(asked), split(who)
        @kind, @from, @to, @plant, @property_id = kind, from, to, plant, property_id
        @places, @kinds = places, kinds
      end

      def asked? = @words.any? || @who.any?

      # [Found], the best fit first; page from 0.
      def page(number = 0)
        return [] unless asked?

        rows = matching.select(:rowid, :patch_id, :property_id, :on_day, SNIPPET)
                       .order(Sequel.lit("rank"), Sequel.desc(:rowid)).limit(LISTED, LISTED * number).all
        rows.map { |row| found(row) }
      end

      def total = asked? ? @total ||= matching.count : 0

      # The same with every word that stands nowhere read as the nearest one; nil where that is no other search.
      def nearest
        return if total.positive?

        better = @words.map { |word| near(word) }
        return if better == @words

        self.class.new(better.join(" "), kind: @kind, from: @from, to: @to, who: @who.join(" "), plant: @plant,
                                         property_id: @property_id, places: @places, kinds: @kinds)
      end

      private

      SNIPPET = Sequel.lit("snippet(texts, -1, '#{MARK.first}', '#{MARK.last}', '…', 24) AS words")
      private_constant :SNIPPET

      def split(text) = text.to_s.scrub.scan(/[[:alnum:]]+/).first(MOST_WORDS)

      def matching
        found = db[:texts].where(Sequel.lit("texts MATCH ?", query))
        found = found.where(Sequel.lit("texts.rowid % 32 = ?", KINDS.fetch(@kind))) if @kind
        found = found.where(property_id: @property_id) if @property_id
        found = found.where(Sequel.|({ property_id: nil }, { property_id: @places })) if @places
        found = found.where(Sequel.lit("texts.rowid % 32") => KINDS.values_at(*@kinds)) if @kinds.size < KINDS.size
        found = of_group(found)
        found = found.where(Sequel[:on_day] >= @from.iso8601) if @from
        found = found.where(Sequel[:on_day] <= @to.iso8601) if @to
        found = found.where(patch_id: Patch.live.unordered.where(plant_key: @plant).select(:id)) if @plant
        found.where(Sequel.|({ patch_id: nil }, { patch_id: Patch.live.unordered.select(:id) }))
      end

      # Without what is on another group's shelf or list.
      def of_group(found)
        return found unless Acting.group_id

        GROUPED.reduce(found) do |rest, (kind, table)|
          others = db[table].exclude(group_id: Acting.group_id)
          rest.exclude(Sequel.lit("texts.rowid") => others.select(Sequel.lit("id * 32 + ?", KINDS.fetch(kind))))
        end
      end

      # As FTS5 reads it: every word begun; whose, in its own column.
      def query
        [*@words.map { |word| %("#{word}"*) }, *@who.map { |word| %(who : "#{word}"*) }].join(" AND ")
      end

      def found(row)
        id, number = row[:rowid].divmod(32)
        Found.new(kind: KINDS.key(number), id:, patch_id: row[:patch_id], property_id: row[:property_id],
                  on_day: row[:on_day] && Date.iso8601(row[:on_day]), words: row[:words])
      end

      # The nearest word that stands somewhere, with one letter wrong, or two in a long one; itself where none is near.
      def near(word)
        plain = word.unicode_normalize(:nfkd).gsub(/\p{M}/, "").downcase
        return word if plain.size < 4 || begun?(plain)

        most = plain.size > 6 ? 2 : 1
        alike = db[:texts_words].where(Sequel.function(:length, :term) => (plain.size - most)..(plain.size + most))
                                .where(Sequel.like(:term, "#{plain[0]}%") | Sequel.like(:term, "_#{plain[1]}%"))
                                .select_map(%i[term doc])
        best = alike.map { |term, records| [DidYouMean::Levenshtein.distance(plain, term), -records, term] }.min
        best && best.first <= most ? best.last : word
      end

      def begun?(word) = !db[:texts_words].where { (term >= word) & (term < "#{word}\u{10FFFF}") }.empty?
      def db = Sequel::Model.db
    end
  end
end
