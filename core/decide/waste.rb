# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What a method leaves of a plant on a day, part by part (knowledge/parts.yml), and where each part goes
      # (knowledge/disposal.yml): by what can live on in it, not by plant.
      class Waste
        # key: of the part; way: of where it goes; label and text: both in words.
        Part = Value.define(:key, :way, :label, :text)
        ROOTED = %i[pulling digging severing rolling levering turf].freeze # what takes roots out
        LIVE_UNDERGROUND = %i[crown_sprouts fragments_root tussock root_suckers].freeze
        LIVE, KEPT_OFF = %i[seed crown cane fragment].freeze, %w[dry_off_ground above_high_water].freeze
        LIES = %i[machine mulching].freeze # what is cut small lies where it was

        def initialize(situation, removal, knowledge: Knowledge.shipped)
          @now, @removal, @knowledge, @plant = situation, removal, knowledge, situation.plant
        end

        # [Part], in the order of knowledge/parts.yml.
        def parts
          @parts ||= @knowledge.parts.filter_map do |key, row|
            way = ways[key.to_sym] or next
            text = @knowledge.disposal.fetch(way)["text"]
            Part.new(key: key.to_sym, way:, label: row["text"], text: text[0].downcase + text[1..])
          end
        end

        # Where most of it goes.
        def key
          (ways[:seed] ||
           ways.values_at(:branch, :herb, :cane, :fragment, :standing, :canopy, :crown, :root).compact.first).to_s
        end

        # Parts that live on and never go on a pile or into compost; what is bagged says so itself.
        def never = parts.select { |part| LIVE.include?(part.key) && KEPT_OFF.include?(part.way) }

        def pile? = ways[:branch] == "brush_pile" && !hauls?
        def hauls? = ways[:branch] == "brush_pile" && @now.school(:piles) == "haul"

        private

        # {part => way}
        def ways
          @ways ||= begin
            found = @plant.aquatic? ? { seed:, fragment: } : { seed:, crown:, cane:, root:, branch:, herb:, canopy: }
            found.compact.then { |told| told.empty? ? { standing: "leave_standing" } : told }
          end
        end

        def seed = ("bag_and_landfill" if carries_seed? && (taken? || cut?))

        # Root wads of shrubs and vines go onto a platform of logs, where piles are built; what roots from any piece is
        # bagged.
        def crown
          return unless rooted? && @plant.is?(*LIVE_UNDERGROUND)

          @plant.woody? && !@plant.is?(:fragments_root) && platform? ? "log_platform" : "bag_and_landfill"
        end

        # Stems that root go off the ground, or into the bag where the plant's file asks for no less.
        def cane
          return unless stems_root? && tops?

          platform? && @plant.woody? && !@plant.is?(:fragments_root) ? "log_platform" : careful
        end

        def root = (lying if rooted? && !@plant.is?(*LIVE_UNDERGROUND))
        def platform? = @plant.disposal["clean"] != "bag_and_landfill" && @now.school(:piles) == "pile"

        # A weed without seed or flower may lie, roots up, where its file lets it.
        def lying = @plant.disposal["clean"] == "roots_up" && !in_flower? ? "roots_up" : "dry_off_ground"
        def in_flower? = !%i[leaf dormant].include?(@now.stage)

        def branch
          return if !@plant.woody? || stems_root? || !tops?

          @removal.is?(*LIES) ? "where_it_falls" : bare
        end

        def herb
          return if @plant.woody? || stems_root? || !tops?

          return @plant.disposal.fetch("seeding", "bag_and_landfill") if carries_seed?

          clean = @plant.disposal.fetch("clean", "dry_off_ground")
          clean = lying if clean == "roots_up"
          @removal.is?(:cutting, *LIES) && clean != "bag_and_landfill" ? "where_it_falls" : clean
        end

        def canopy = ("hang_to_dry" if @removal.is?(:freeing))
        def fragment = ("above_high_water" if taken?)
        def careful = @plant.disposal["clean"] == "bag_and_landfill" ? "bag_and_landfill" : "dry_off_ground"
        def bare = @plant.disposal["clean"] == "brush_pile" ? "brush_pile" : careful
        def stems_root? = @plant.is?(:layers, :fragments_root)

        # Does it take roots out of the ground, cut tops off, or take anything at all from its place?
        def rooted? = @removal.is?(*ROOTED)
        def cut? = @removal.is?(:cutting, :topping, :felling, :mulching) || @removal.key == "limb_up_and_flag"
        def tops? = rooted? || cut?
        def taken? = tops? || @removal.is?(:seed_stop, :aquatic, :freeing)

        def carries_seed?
          %i[green_seed ripe_seed].include?(@now.stage) || (@now.stage == :flower && @plant.disposal["bag_in_flower"])
        end
      end
    end
  end
end
