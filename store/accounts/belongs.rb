# frozen_string_literal: true

module Thistle
  module Store
    # Reading: on which property a record is that an address names by its kind and id, live or taken back.
    module Belongs
      OWN = { patch: :patches, zone: :zones, search: :searches, arrival: :arrivals, layer: :layers, sheet: :reports,
              change: :changes, day: :work_days, season_plan: :season_plans, local_rule: :local_rules,
              rule_setting: :rule_settings, weather_file: :weather_files, sighting: :sightings,
              gather_place: :gather_places, land_plan: :land_plans, membership: :memberships,
              guest_link: :guest_links, comment: :comments, permission: :permissions }.freeze
      # kind => [table, the column that leads on, the kind that it leads to]
      THROUGH = { picture: %i[pictures patch_id patch], course: %i[courses patch_id patch],
                  step: %i[course_steps course_id course], task: %i[tasks patch_id patch],
                  check: %i[checks patch_id patch], treatment: %i[treatments patch_id patch],
                  observation: %i[observations patch_id patch], planting: %i[plantings patch_id patch],
                  planting_plan: %i[planting_plans patch_id patch], trial: %i[trials patch_id patch],
                  take_count: %i[take_counts planting_id planting], photo: %i[photos report_id sheet] }.freeze
      SAME = { plan: :season_plan }.freeze # as addresses of Records call it
      OF_NONE = { person: :people, account: :accounts }.freeze # of the whole copy

      module_function

      def known?(kind) = [OWN, THROUGH, SAME, OF_NONE].any? { |table| table.key?(kind) } || kind == :property

      # The id of the property; nil where there is no such record. Raises KeyError for a kind unknown.
      def property_id(kind, id)
        return property_id(SAME.fetch(kind), id) if SAME.key?(kind)
        return db[:properties].where(id:).get(:id) if kind == :property
        return db[OWN.fetch(kind)].where(id:).get(:property_id) if OWN.key?(kind)

        table, column, leads_to = THROUGH.fetch(kind)
        inner = db[table].where(id:).get(column)
        inner && property_id(leads_to, inner)
      end

      # The table that keeps records of a kind.
      def table(kind)
        kind = SAME.fetch(kind, kind)
        OWN[kind] || THROUGH[kind]&.first || OF_NONE[kind]
      end

      def db = Sequel::Model.db
    end
  end
end
