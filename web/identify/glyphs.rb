# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      # The drawn states of characters, as one SVG sprite: <symbol id="pith-hollow">. Drawn from a few strokes
      # (leaf, stem, ring, flower), so that a new state is a line in the file of its group: a method character_state,
      # or character(state) where only a colour differs. All in a 64 x 64 box.
      module Glyphs
        INK = "#1E2A27"
        LEAF = "#C9DAB0"
        STEM = "#4C6B2F"
        WOOD = "#D9B98A"
        PALE = "#F3E6CC"
        BERRY = "#B4412A"
        WATER = "#2F6C8C"
        COLOURS = { "white" => "#FFFFFF", "yellow" => "#F2CF4A", "orange" => "#E58A2B", "red" => "#C2392B",
                    "pink" => "#E7A3BE", "purple" => "#A66BB8",
                    "blue" => "#6C8FD0", "green" => "#B5CC8E", "black" => "#2B2A3C", "brown" => "#9A7146",
                    "speckled" => "#C2392B" }.freeze
        TINTS = { "green" => LEAF, "blue" => "#A9C0BD", "red" => "#A9606B", "yellow" => "#DDE08A", "variegated" => LEAF,
                  "straw" => "#E3C878" }.freeze
        TWIGS = { "green" => "#7E9A5C", "brown" => "#8F7352", "red" => "#A8462A", "silver" => "#B5BDBF",
                  "velvet" => "#A58A66" }.freeze
        PEN = %(fill="none" stroke="#{INK}" stroke-width="1.6" stroke-linecap="round" stroke-linejoin="round").freeze
        RULES = %w[cm mm count].freeze # drawings for what is measured

        class << self
          include Strokes
          include Afar
          include Leaf
          include Stem
          include Grass
          include Flower
          include Fruit
          include Root
          include Water

          def sprite
            @sprite ||= begin
              symbols = drawings.map do |id, body|
                %(<symbol id="#{id}" viewBox="0 0 64 64" #{PEN}>#{body}</symbol>)
              end
              %(<svg xmlns="http://www.w3.org/2000/svg">#{symbols.join}</svg>)
            end
          end

          # {"character-state" => drawing}
          def drawings
            drawn = Core::Knowledge.shipped.characters.values.reject(&:measured?).flat_map do |character|
              character.states.keys.map { |state| ["#{character.key}-#{state}", draw(character.key, state)] }
            end
            (drawn + RULES.map { |unit| ["measured-#{unit}", draw("measured", unit)] }).to_h
          end

          # Raises NoMethodError for a state that nobody has drawn.
          def draw(character, state)
            name = :"#{character}_#{state}"
            respond_to?(name, true) ? send(name) : send(character, state)
          end
        end
      end
    end
  end
end
