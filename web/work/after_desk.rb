# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # A day's taps as records of work: a form for each patch, filled in with what was tapped; all are kept, or none.
      class AfterDesk
        # form: Forms::Treatment; asks: [what is to be looked at].
        Sheet = Struct.new(:card, :form, :asks)
        STOPPED = "The timer was started but not stopped. The end time is a guess: please correct the hours."
        ONLY_CUT = "The crew tapped “only cut”. The record says: cut, not treated."

        attr_reader :work_day, :kept

        def initialize(work_day, today, units, params = nil)
          @work_day, @today, @units, @params = work_day, today, units, params
          @board = FieldBoard.new(work_day, today)
        end

        def title = Words.full_day(work_day.held_on)

        # [Sheet] of patches that were begun, or that the plan holds where nothing was tapped at all.
        def sheets
          @sheets ||= begin
            begun = @board.cards.select(&:begun?)
            (begun.any? ? begun : @board.cards).map { |card| sheet(card) }
          end
        end

        # Patches of the plan that nobody began.
        def left = @board.cards.reject(&:begun?).map(&:patch) - sheets.map { |one| one.card.patch }

        # True when every sheet was kept; else each says what it wants. Where nothing was done anywhere, the day stays
        # open.
        def keep(site)
          wanted = sheets.select { |one| done(one.card) == "yes" }
          @kept = wanted.size
          ready = unsaid.empty? && wanted.map { |one| one.form.fit? }.all? && (search.nil? || search.ok?)
          return ready if wanted.empty? && search.nil?

          ready && Sequel::Model.db.transaction { claim && store(wanted, site) }
        end

        # {patch id => what is missing}: whether anything was done, or what was typed beside "nothing".
        def unsaid
          return {} unless @params

          sheets.to_h { |one| [one.card.patch.id, missing(one.card)] }.compact
        end

        # Ground beside the walk that was looked over as well, if somebody says so: a Survey::Forms::Search.
        def search
          return unless @params && @params["looked"] == "true" && walk.size > 2

          @search ||= Survey::Forms::Search.new(
            { "geometry" => JSON.generate(type: "LineString", coordinates: walk), "sight" => @params["sight"],
              "searched_on" => work_day.held_on.iso8601, "people" => work_day.people.map(&:name).join(", "),
              "note" => "On the walk of the work day." }, units: @units, today: @today
          )
        end

        def looked? = @params&.fetch("looked", nil) == "true"
        def sight = @params&.fetch("sight", nil)

        # Was anything done there, "yes" or "no"? nil until somebody says so, of what nobody began.
        def done(card)
          said = @params ? @params["done-#{card.patch.id}"] : nil
          %w[yes no].include?(said) ? said : ("yes" if card.begun? && @params.nil?)
        end

        private

        TYPED = %w[hours plants_done stems_done piles bags note].freeze
        private_constant :TYPED

        def missing(card)
          case done(card)
          when nil then "Say whether anything was done here."
          when "no"
            typed = TYPED.any? { |name| !@params["#{name}-#{card.patch.id}"].to_s.strip.empty? }
            "You typed what was done. Say yes, or clear it." if typed
          end
        end

        # Of two who write the day down at once, one does.
        def claim
          claimed = Store::WorkDay.where(id: work_day.id, closed_at: nil).update(closed_at: Time.now.utc)
          work_day.refresh
          claimed == 1
        end

        def store(wanted, site)
          wanted.each { |one| one.form.store(one.card.patch, site).update(work_day_id: work_day.id) }
          plants = @board.day_board.stops.map { |stop| stop.patch.plant_key }.uniq
          raise Sequel::Rollback if search && !search.store(work_day.property, plants, plants, work_day_id: work_day.id)

          true
        end

        def walk = @walk ||= @board.day_board.walk

        def sheet(card)
          asks = [(STOPPED if card.open?), (ONLY_CUT if only_cut?(card))].compact
          Sheet.new(card, form(card), asks)
        end

        def only_cut?(card) = card.treated == "cut" && (card.removal || usual(card.patch)).herbicide?

        def form(card)
          known = tapped(card)
          untouched = -> { Forms::Treatment.untouched(known, units: @units, today: @today) }
          return untouched.call.tap { |form| form.hints = hints(card) } unless @params

          typed = @params.to_h.filter_map do |name, value|
            [name.delete_suffix("-#{card.patch.id}"), value] if name.end_with?("-#{card.patch.id}")
          end
          told = noted(known.slice("done_on", "who", "started_at", "ended_at").merge(typed.to_h))
          Forms::Treatment.new(told, units: @units, today: @today, seen_on: card.patch.seen_on)
        end

        # Piles and bags stand in the note.
        def noted(typed)
          left = { "piles" => "pile", "bags" => "bag" }.filter_map do |name, words|
            count = Whole.read(typed[name].to_s)
            Words.count(count, words) if count.positive?
          end
          said = "Left: #{left.join(", ")}." if left.any?
          typed.merge("note" => [typed["note"], said].compact.join(" ").strip)
        end

        def tapped(card)
          removal = only_cut?(card) ? Core::Knowledge.shipped.removal("cut_only") : card.removal || usual(card.patch)
          began = card.begun? ? { "crew_size" => card.people.to_s, "hours" => hours(card), **there(card) } : {}
          { "done_on" => work_day.held_on.iso8601, "method_key" => removal.key, **began,
            "plants_done" => positive(card.plants), "stems_done" => positive(card.stems),
            **card.sizes.transform_keys { |size| "size_#{size}" }.transform_values { |number| positive(number) },
            "seed_fall" => card.seed, "disposal" => disposal(card, removal),
            "note" => card.notes.uniq.join(" ")[0, 2000], **clock(card) }
            .compact.reject { |_, value| value.empty? }
        end

        # When it began and ended, as the record of herbicide wants it.
        def clock(card) = %w[started_at ended_at].zip(@board.span(card) || []).to_h.compact

        # Who was planned there, else everybody who came.
        def there(card)
          planned = (card.stop&.turns || []).flat_map { |turn| turn[:people] }.map { |one| one[:id] }.uniq
          listed, others = planned.partition { |id| id.is_a?(Integer) }
          listed, hands = card.stop ? [listed, others.size] : [JSON.parse(work_day.people_ids), work_day.hands]
          { "who" => listed.join(","), "people" => hands.positive? ? Words.count(hands, "volunteer") : nil }
        end

        # Where most of it goes, as the method has it.
        def disposal(card, removal)
          facts = card.patch.facts(@today)&.with(date: work_day.held_on) or return
          bench = Core::Decide::Bench.new(facts, work_day.property.site(@today))
          Core::Decide::Waste.new(bench.situation, removal).key
        end

        # The first that the plant's file names, where the plan says none.
        def usual(patch) = Core::Knowledge.shipped.removal(patch.plant.removals.keys.first || "hand_pull")

        def positive(count) = count.positive? ? count.to_s : nil

        # {field => likely}, of what nobody tapped.
        def hints(card)
          unsaid = card.begun? ? {} : { crew_size: card.people, hours: hours(card) }
          { **unsaid, area: area(card) }.compact.transform_values { |number| "about #{number}" }
        end

        # Of the ground, where nothing was counted.
        def area(card)
          return if card.plants.positive? || card.stems.positive?

          card.patch.infested && @units.from_si(:area, card.patch.infested.first).round.to_s
        end

        def hours(card)
          open = card.open? ? [@board.likely_end(card) - card.since, 0].max / 3600.0 : 0.0
          total = card.hours + open
          total = card.stop.turns.size * 0.9 if total.zero? && card.stop
          total.round(2).clamp(0.05, 24).to_s.delete_suffix(".0")
        end
      end
    end
  end
end
