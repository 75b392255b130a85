# frozen_string_literal: true

module Thistle
  module Store
    # Model: someone of the group. Records name people by their ids; older ones by a name that somebody said is theirs.
    class Person < Sequel::Model(:people)
      plugin :optimistic_locking

      include Live
      include OfGroup

      dataset_module do
        def named = order(Sequel.function(:lower, :name), :id)
      end

      LISTS = %i[roles training cannot].freeze

      # {id => name}, those who left too.
      def self.names = select_hash(:id, :name)

      # {name in small letters => id} of a group: the list's own, and older names that somebody said are theirs.
      def self.by_name(group_id = Acting.group_id)
        (Matched.of_group(group_id).select_map(%i[name person_id]) + of_group(group_id).select_map(%i[name id]))
          .to_h { |name, id| [name.downcase.strip, id] }
      end

      # May records of the group at hand name them: are they on its list, or named on its ground already?
      def self.at_hand?(ids)
        rest = ids - here.where(id: ids).select_map(:id)
        return rest.empty? if rest.empty? || Acting.group_id.nil?

        named = Treatment.of_group(Acting.group_id).select_map(:people_ids).uniq
        (rest - named.flat_map { |text| JSON.parse(text) }).empty? && where(id: rest).count == rest.size
      end

      # Names in older records that are nobody's yet, with how many records each: {name => number}.
      def self.unmatched
        known = by_name
        work = Treatment.where(deleted_at: nil).of_group(Acting.group_id)
        texts = work.exclude(people: nil).select_map(:people) + work.exclude(applicator: nil).select_map(:applicator)
        texts.flat_map { |text| split(text) }.reject { |name| known.key?(name.downcase) }.tally
             .sort_by { |name, count| [-count, name] }.to_h
      end

      # "J. Finch, T. Abara and Mo" as three names.
      def self.split(text) = text.split(/,|;| and /).map { |name| name.strip[0, 80] }.reject(&:empty?)

      # Names like this one on the list, other than its own: within two letters.
      def self.alike(name, except: nil)
        live.here.exclude(id: except || 0).named.select_map(:name).select do |other|
          DidYouMean::Levenshtein.distance(other.downcase, name.downcase) <= 2
        end
      end

      LISTS.each { |list| define_method(:"#{list}_kept") { JSON.parse(self[list]) } }

      # As core plans with them.
      def to_core
        Core::Work::Person.new(id:, name:, roles: roles_kept, training: training_kept, cannot: cannot_kept,
                               licensed_until: licence_expires_on)
      end

      # This older name is theirs.
      def match(name)
        Matched.dataset.insert_conflict(target: %i[group_id name], update: { person_id: id })
               .insert(name:, group_id:, person_id: id)
      end

      # Live records that name them.
      def records
        said = Matched.where(person_id: id).select_map(:name) + [name]
        listed = Sequel.lit("EXISTS (SELECT 1 FROM json_each(people_ids) j WHERE j.value = ?)", id)
        written = said.map { |text| Sequel.lit("#{NAMES} LIKE ? ESCAPE '\\'", "%,#{escaped(text)},%") }.reduce(:|)
        Treatment.where(deleted_at: nil).where(listed | written)
      end

      # The names of a record as ",j. finch,al,": Al is not Alan.
      NAMES = "(',' || " \
              "replace(replace(replace(replace(lower(people), ' and ', ','), ';', ','), ', ', ','), ' ,', ',') || ',')"
      private_constant :NAMES

      def take_off = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)

      # Model: a name in older records, and whose it is.
      class Matched < Sequel::Model(:person_names)
        unrestrict_primary_key
        dataset_module { def of_group(id) = id ? where(group_id: id) : self }
      end

      private

      def escaped(text) = Treatment.dataset.escape_like(text.downcase)
    end
  end
end
