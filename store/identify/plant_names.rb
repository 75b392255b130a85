# frozen_string_literal: true

module Thistle
  module Store
    # Reading: plants by any of their names, in any tongue, without accents and misspelled too: SQLite's FTS5 over
    # trigrams. Filled at boot from the library.
    module PlantNames
      ENOUGH = 0.34 # share of a query's trigrams that a name must hold

      module_function

      def fill(knowledge)
        db.transaction do
          names.delete
          rows = knowledge.plants.values.flat_map do |plant|
            [plant.name, plant.scientific, *plant.also, *knowledge.names_elsewhere(plant.key)]
              .map { |name| { key: plant.key, name: Core::Knowledge.folded(name) } }
          end
          names.multi_insert(rows)
        end
      end

      # Keys of plants, the best fit first: names that hold what was typed, then those that share enough of its
      # trigrams.
      def find(query, limit: 20)
        typed = plain(query)
        return [] if typed.empty?
        if typed.size < 3
          return names.where(Sequel.ilike(:name, "%#{names.escape_like(typed)}%")).limit(limit).select_map(:key).uniq
        end

        wanted = trigrams(typed)
        match = wanted.map { |three| %("#{three.gsub('"', '""')}") }.join(" OR ")
        found = names.where(Sequel.lit("plant_names MATCH ?", match)).select_map(%i[key name])
        ranked(found, typed, wanted).first(limit)
      end

      def ranked(found, typed, wanted)
        scores = found.map do |key, name|
          words = plain(name)
          own = trigrams(words)
          [key, words.include?(typed) ? 2.0 - (words.size / 1000.0) : (own & wanted).size / wanted.size.to_f]
        end
        scores.select { |_, score| score >= ENOUGH }.sort_by { |key, score| [-score, key] }.map(&:first).uniq
      end

      def trigrams(words) = words.chars.each_cons(3).map(&:join).uniq

      def plain(words)
        words.to_s.unicode_normalize(:nfkd).gsub(/\p{M}/, "").downcase.gsub(/[^a-z0-9 ]/, " ").squeeze(" ").strip[0, 60]
      end

      def names = db[:plant_names]
      def db = Sequel::Model.db
    end
  end
end
