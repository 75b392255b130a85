# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # What stands on a property on a day, as a management plan reads it: its plants, with their patches in every
        # state, the best move of each open patch, and the hours and money that they take.
        class Land
          # A plant on the land: states {state => patches}; gross_m2 of those that are not closed, nil where nobody
          # measured; open: [Core::Decide::Priority::Candidate], the largest first.
          Kind = Core::Value.define(:plant, :states, :gross_m2, :open) do
            def patches = states.values.sum
            def still = states.except("closed").values.sum
          end
          # hours, cost: {low, likely, high} of a pass; hours_to_quiet, cost_to_quiet the same until it is quiet;
          # years: until the last is quiet, nil where there is no end in sight; known, ending: patches that are in the
          # sums of a pass, and in those until quiet; unknown: patches whose amount or method nobody knows.
          Sum = Core::Value.define(:hours, :cost, :hours_to_quiet, :cost_to_quiet, :years, :known, :ending, :unknown) do
            def endless = known - ending
          end

          attr_reader :property, :today

          def initialize(property, today)
            @property, @today = property, today
          end

          def units = @property.measures
          def site = @site ||= @property.site(@today)

          # [Kind] of plants that are removed here, those with the most ground first.
          def kinds
            @kinds ||= counted.map { |key, rows| kind(Core::Knowledge.shipped.plant(key), rows) }
                              .sort_by { |kind| [-kind.gross_m2.to_f, kind.plant.name] }
          end

          # Patches that nobody could name yet.
          def unnamed = @property.live_patches.unordered.where(plant_key: nil).exclude(state: "closed").count

          # [Candidate] of all plants, what is done first in front.
          def ranked
            @ranked ||= Core::Decide::Priority.new(ranking.candidates, @property.rank_weights).rows
          end

          # {Removal => [Candidate]}: how the open patches of a plant are treated, what treats the most first.
          def ways(kind)
            kind.open.select { |one| one.verdict.possible? }.group_by { |one| one.verdict.removal }
                .sort_by { |removal, some| [-some.size, removal.name] }.to_h
          end

          # The Bench of a patch, with all methods.
          def bench(candidate)
            (@benches ||= {})[candidate.id] ||= Core::Decide::Bench.new(candidate.facts, site)
          end

          # One patch of each kind of ground among some: where slope, water and what is near are alike, so are the
          # hazards.
          def grounds(candidates)
            candidates.uniq { |one| [one.facts.slope, wet(one.facts), one.facts.zones.to_a.map(&:kind).uniq.sort] }
          end

          # The Safety of a method at a patch, whatever the weather of the day.
          def safety(candidate, removal)
            Core::Decide::Safety.new(bench(candidate).situation.with(day: nil), removal)
          end

          # The Sum over candidates, each by its best move.
          def sum(candidates)
            efforts = candidates.select { |one| one.verdict.possible? }.map { |one| one.verdict.effort }
            known, unknown = efforts.partition(&:hours)
            Sum.new(hours: ranges(known.map(&:hours_range)), cost: ranges(known.map(&:cost_range)),
                    hours_to_quiet: ranges(known.map(&:hours_to_quiet_range)),
                    cost_to_quiet: ranges(known.map(&:cost_to_quiet_range)),
                    years: efforts.filter_map(&:years_to_quiet).max, known: known.size,
                    ending: known.count(&:hours_to_quiet), unknown: unknown.size + candidates.size - efforts.size)
          end

          private

          def wet(facts)
            metres = facts.water_m
            [metres&.zero?, metres.nil? || metres < Core::Decide::Facts::NEAR_WATER_M]
          end

          def ranking = @ranking ||= Store::Ranking.new(@property, @today, kept: Core::Kept::MOVES)

          # {plant key => [[state, patches, m²]]} of weeds.
          def counted
            rows = @property.live_patches.unordered.exclude(plant_key: nil).group(:plant_key, :state)
                            .select { [plant_key, state, count.function.*.as(:n), sum(gross_m2).as(:m2)] }.naked.all
            rows.group_by { |row| row[:plant_key] }
                .select { |key, _| @property.weed?(Core::Knowledge.shipped.plant(key)) }
          end

          def kind(plant, rows)
            still = rows.reject { |row| row[:state] == "closed" }.filter_map { |row| row[:m2] }
            Kind.new(plant:, states: rows.to_h { |row| row.values_at(:state, :n) },
                     gross_m2: (still.sum if still.any?), open: open_of(plant))
          end

          def open_of(plant)
            @open ||= ranking.candidates.group_by { |one| one.facts.plant.key }
            @open.fetch(plant.key, []).sort_by { |one| [-one.facts.area_m2.to_f, one.id] }
          end

          # The sum of ranges; nil of none. Low with low: all may be easy, all may be hard.
          def ranges(some)
            known = some.compact
            known.any? ? %w[low likely high].to_h { |end_| [end_, known.sum { |range| range[end_] }] } : nil
          end
        end
      end
    end
  end
end
