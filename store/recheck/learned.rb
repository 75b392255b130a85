# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what methods killed here, by the last look that counts after each treatment (Core::Recheck::Efficacy).
    module Learned
      MOST = 20_000 # looks, the newest
      PLANNED = ->(plant, method) { Core::Knowledge.shipped.removal(method).kill(Core::Knowledge.shipped.plant(plant)) }

      LIVE = { Sequel[:checks][:deleted_at] => nil, Sequel[:treatments][:deleted_at] => nil,
               Sequel[:checks][:left_out] => false }.freeze
      # Dates as text: to read twenty thousand of them takes longer than all the rest.
      LOOKED_AT = [Sequel[:checks][:id], Sequel.cast(:checked_on, String).as(:checked_on),
                   Sequel[:checks][:resprouts].as(:alive), Sequel[:treatments][:id].as(:work), :method_key,
                   Sequel[:treatments][:stems_done].as(:treated),
                   Sequel.function(:strftime, "%m", :done_on).as(:month), Sequel[:treatments][:people_ids],
                   :plant_key, Sequel[:patches][:property_id], :stem_size].freeze

      module_function

      # The Core::Recheck::Efficacy of all looks.
      def efficacy = Core::Recheck::Efficacy.new(looks.filter_map { |row| seen(row) }, PLANNED)

      # {plant => {method => {low, likely, high percent, source, records, stems}}} of those with records, as Facts takes
      # it; the same value until a record changes. What the handbook says kills nothing is left to it.
      def kills
        Core::Kept::ANSWERS.fetch([:kills, *stamp]) do
          learned = efficacy
          learned.cells.group_by(&:first).transform_values { |cells| of_plant(learned, cells) }.freeze
        end
      end

      # The efficacy that pages show; kept like the rest.
      def shown = Core::Kept::ANSWERS.fetch([:efficacy, *stamp]) { efficacy }

      def of_plant(learned, cells)
        cells.reject { |plant, method| PLANNED.call(plant, method)["likely"].zero? }.to_h do |plant, method|
          answer = learned.of(plant, method)
          percent = { "low" => answer.low, "likely" => [answer.mean, 0.99].min, "high" => answer.high }
          counted = { "source" => "own_records", "records" => answer.records, "stems" => answer.stems }
          [method, { **percent.transform_values { |share| (100 * share).round }, **counted }.freeze]
        end.freeze
      end

      def stamp
        checks = Check.where(deleted_at: nil)
        works = Treatment.where(deleted_at: nil)
        [checks.count, checks.max(:id), checks.max(:created_at), works.count, works.max(:id), Amendment.max(:id),
         Setting.today]
      end

      # The last look after each treatment that would have shown what lived.
      def looks
        stems = Sequel[:treatments][:stems_done]
        counted = (stems >= 1) & (Sequel[:checks][:resprouts] <= stems)
        rows = Check.db[:checks].join(:treatments, id: Sequel[:checks][:treatment_id])
                    .join(:patches, id: Sequel[:treatments][:patch_id])
                    .where(LIVE).where(counted).exclude(Sequel[:patches][:plant_key] => nil)
                    .reverse(Sequel[:checks][:checked_on], Sequel[:checks][:id]).limit(MOST).select(*LOOKED_AT).all
        shown = Hash.new { |all, (plant, property, on)| all[[plant, property, on]] = shows?(plant, property, on) }
        counts = rows.select do |row|
          row[:alive].positive? || shown[row.values_at(:plant_key, :property_id, :checked_on)]
        end
        counts.uniq { |row| row[:work] }
      end

      # Would anything that lives have been up?
      def shows?(plant, property_id, date)
        @calendars = {} if @calendars.nil? || @calendars.size > 500
        date, today = Date.iso8601(date), Setting.today
        calendar = @calendars[[property_id, plant, today]] ||= begin
          site = Property[property_id].site(today)
          Core::Season::Phenology.new(Core::Knowledge.shipped.plant(plant), site, sightings: [])
        end
        within = PatchHistory::SHOWS_WITHIN
        [-within, 0, within].any? { |days| calendar.phases_on(date + days).intersect?(PatchHistory::SHOWING) }
      end

      def seen(row)
        where = { size: row[:stem_size], season: SEASONS[(row[:month].to_i % 12) / 3], who: who(row[:people_ids]) }
        Core::Recheck::Efficacy::Seen.new(id: row[:id], plant: row[:plant_key], method: row[:method_key],
                                          treated: row[:treated], alive: row[:alive], where:)
      end
      SEASONS = ["December to February", "March to May", "June to August", "September to November"].freeze

      def who(ids)
        ids == "[]" ? nil : Person.where(id: JSON.parse(ids)).order(:id).select_map(:name).join(", ")
      end
      private_class_method :of_plant, :stamp, :looks, :shows?, :seen, :who
    end
  end
end
