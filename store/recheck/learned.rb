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
                   :plant_key, Sequel[:patches][:property_id], Sequel[:treatments][:patch_id], :stem_size,
                   :product_ml, :mix_ml].freeze
      NEWEST = ->(row) { row.values_at(:checked_on, :id) }
      FEW = 200 # patches with records that changed, up to which only those are read again
      # What is known, and of which state of the file: its database, the highest ids, how many records, the day.
      Known = Core::Value.define(:db, :check, :work, :sight, :amendment, :checks, :works, :sights, :today, :efficacy)
      # Records that say what was learned of which plant: looks, work, and sights, which name a patch.
      RECORDS = [[Check, :check, :checks], [Treatment, :work, :works], [Observation, :sight, :sights]].freeze

      module_function

      # The Core::Recheck::Efficacy of all looks; after a record only its patch is read again.
      def efficacy
        now = standing
        return @known.efficacy if @known && @known.with(efficacy: nil) == now

        @names = @properties = nil
        patches = @known && changed(now)
        found = if patches then @known.efficacy.with(patches, seen_on(patches))
                else Core::Recheck::Efficacy.new(seen_on(nil), PLANNED)
                end
        @known = now.with(efficacy: found)
        found
      end

      # What is told of each plant of which there are records, worked out when it is asked for; the same value until a
      # record changes.
      def kills
        learned = efficacy
        @kills = Kills.new(learned) unless @kills&.of?(learned)
        @kills
      end

      # {method => {low, likely, high percent, source, records, stems}} of a plant, as Facts takes it; nil where nothing
      # was counted. What the handbook says kills nothing is left to it.
      class Kills
        def initialize(learned)
          @learned, @told = learned, {}
          @by_plant = learned.cells.group_by(&:first).transform_values { |cells| cells.map(&:last) }
        end

        def of?(learned) = @learned.equal?(learned)

        def [](plant)
          @told[plant] ||= @by_plant[plant]&.reject { |method| PLANNED.call(plant, method)["likely"].zero? }
                                           &.to_h { |method| [method, told(@learned.of(plant, method))] }&.freeze
        end

        private

        def told(answer)
          percent = { "low" => answer.low, "likely" => [answer.mean, 0.99].min, "high" => answer.high }
          counted = { "source" => "own_records", "records" => answer.records, "stems" => answer.stems }
          { **percent.transform_values { |share| (100 * share).round }, **counted }.freeze
        end
      end

      # How the file stands, as Known.
      def standing
        counted = RECORDS.flat_map { |model, last, count| [[last, model.max(:id).to_i], [count, model.count]] }.to_h
        Known.new(db: Check.db, amendment: Amendment.max(:id).to_i, today: Setting.today, **counted)
      end

      # Ids of the patches with records that are new or amended since; nil where all has to be read.
      def changed(now)
        return unless @known.db.equal?(now.db) && @known.today == now.today && added?(now)

        fresh = RECORDS.flat_map do |model, last, _|
          model.where(Sequel[:id] > @known[last]).order(:id).limit(FEW + 1).select_map(:patch_id)
        end
        amended = Amendment.where(Sequel[:id] > @known.amendment).limit(FEW + 1).select_map(%i[kind record_id])
        patches = (fresh + amended.filter_map { |kind, id| patch_of(kind, id) }).uniq
        patches.size > FEW ? nil : patches
      end

      # The patch of a record that was amended; nil of one that says nothing here.
      def patch_of(kind, id)
        { "check" => Check, "treatment" => Treatment, "observation" => Observation }[kind]&.where(id:)&.get(:patch_id)
      end

      # Is the file what is known of it and new records? Else something was taken out of it unseen.
      def added?(now)
        RECORDS.all? do |model, last, count|
          fresh = model.where(Sequel[:id] > @known[last]).count
          now[last] >= @known[last] && now[count] == @known[count] + fresh
        end
      end

      # [Seen] of some patches (ids), nil for all.
      def seen_on(patches) = looks(patches).filter_map { |row| seen(row) }

      # The last look after each treatment that would have shown what lived.
      def looks(patches)
        shown = Hash.new { |all, (plant, property, on)| all[[plant, property, on]] = shows?(plant, property, on) }
        counts = (patches ? rows_of(patches) : newest_rows).select do |row|
          row[:alive].positive? || shown[row.values_at(:plant_key, :property_id, :checked_on)]
        end
        counts.uniq { |row| row[:work] }
      end

      def newest_rows = counted.reverse(Sequel[:checks][:checked_on], Sequel[:checks][:id]).limit(MOST).all

      # Of few patches, where the index of days is no help.
      def rows_of(patches) = counted.where(Sequel[:treatments][:patch_id] => patches).all.sort_by(&NEWEST).reverse

      # Looks whose stems were counted, with what is looked at of each.
      def counted
        stems = Sequel[:treatments][:stems_done]
        Check.db[:checks].join(:treatments, id: Sequel[:checks][:treatment_id])
             .join(:patches, id: Sequel[:treatments][:patch_id]).where(LIVE)
             .where((stems >= 1) & (Sequel[:checks][:resprouts] <= stems))
             .exclude(Sequel[:patches][:plant_key] => nil).select(*LOOKED_AT)
      end

      # Would anything that lives have been up?
      def shows?(plant, property_id, date)
        property = (@properties ||= {})[property_id] ||= Property[property_id]
        calendar = property.plain_calendar(Core::Knowledge.shipped.plant(plant), property.today)
        PatchStory.up?(calendar, Date.iso8601(date))
      end

      def seen(row)
        where = { size: row[:stem_size], season: SEASONS[(row[:month].to_i % 12) / 3], who: who(row[:people_ids]),
                  strength: strength(row) }
        Core::Recheck::Efficacy::Seen.new(id: row[:id], plant: row[:plant_key], method: row[:method_key],
                                          treated: row[:treated], alive: row[:alive], where:, patch: row[:patch_id])
      end

      # The share of the mix that was stock, in classes; nil where it was not said.
      def strength(row)
        stock, mix = row.values_at(:product_ml, :mix_ml)
        return unless stock&.positive? && mix&.positive? && stock <= mix

        STRENGTHS.find { |most, _| stock / mix <= most }.last
      end
      STRENGTHS = { 0.05 => "up to 5 % of the mix", 0.3 => "5 to 30 %", 0.7 => "30 to 70 %",
                    1.0 => "over 70 %" }.freeze

      SEASONS = ["December to February", "March to May", "June to August", "September to November"].freeze

      # Who was there; asked once for the same people.
      def who(ids)
        return if ids == "[]"

        names = @names || (@names = {}) # held, since another thread may begin anew
        names[ids] ||= Person.where(id: JSON.parse(ids)).order(:id).select_map(:name).join(", ")
      end
      private_class_method :standing, :changed, :added?, :patch_of, :seen_on, :looks, :newest_rows, :rows_of, :counted,
                           :shows?, :seen, :who,
                           :strength
    end
  end
end
