# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What stands where, and why it matters.
          class Standing < Chapter
            TITLE = "What stands here, and why it matters"
            HEADS = ["Plant", "Patches", "Ground", "How they stand"].freeze

            private

            def write(part)
              kinds = @land.kinds
              part.figures([[kinds.size.to_s, kinds.size == 1 ? "invasive plant" : "invasive plants", nil],
                            [kinds.sum(&:still).to_s, "patches not closed", "/records/lists/patches"],
                            [units.area(kinds.sum { |kind| kind.gross_m2.to_f }), "ground, patches added up", nil]])
              part.table(HEADS, kinds.map { |kind| row(kind) }, numbers: [1, 2])
              if @land.unnamed.positive?
                part.caution("#{patches(@land.unnamed).capitalize} still without a name: find out what they are first.")
              end
              kinds.each { |kind| reasons(part, kind) }
            end

            def row(kind)
              states = Core::Recheck::PatchLife::STATES.filter_map do |state|
                n = kind.states[state]
                "#{n} #{Words.state_word(state)}" if n
              end
              ["#{kind.plant.name} (#{kind.plant.scientific})", kind.patches,
               kind.gross_m2 ? units.area(kind.gross_m2) : "not known", states.join(", ")]
            end

            def reasons(part, kind)
              plant = kind.plant
              told = [plant.matters&.values_at("text", "source"), spread(plant), seed(plant)].compact
              return if told.empty?

              part.heading(plant.name)
              part.list(told)
            end

            def spread(plant)
              travel = plant.dispersal or return
              [(@words ||= Identify::Words.new(property)).ways_of_spread(plant), travel["source"]]
            end

            def seed(plant)
              years = plant.seed_bank_years or return
              likely = years.fetch("likely").round
              after = likely < 1 ? "less than a year" : "about #{Words.count(likely, "year")}"
              ["After #{after} in the ground, 1 of its seeds in 100 is still alive.", plant.seed["source"]]
            end
          end
        end
      end
    end
  end
end
