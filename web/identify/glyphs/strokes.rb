# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Glyphs
        # What every drawing is made of.
        module Strokes
          private

          def leaf(x, y, angle, length: 18, width: 10, fill: LEAF)
            half = width / 2.0
            third, rest, tip = [0.3, 0.7, 0.8].map { |share| (length * share).round(1) }
            %(<path fill="#{fill}" transform="translate(#{x.round(1)} #{y.round(1)}) rotate(#{angle.round})" d="M0 0C#{third} #{-half} #{rest} #{-half} #{length} 0C#{rest} #{half} #{third} #{half} 0 0zM0 0H#{tip}"/>)
          end

          def stem(path = "M32 60V6") = %(<path d="#{path}" stroke="#{STEM}" stroke-width="2.6"/>)
          def ring(x, y, r, fill) = %(<circle cx="#{x}" cy="#{y}" r="#{r}" fill="#{fill}"/>)
          def path(d, fill: "none", stroke: INK, width: 1.6) = %(<path d="#{d}" fill="#{fill}" stroke="#{stroke}" stroke-width="#{width}"/>)
          def pair(y, **size) = leaf(32, y, -28, **size) + leaf(32, y, -152, **size)
          def ground = path("M6 52h52", stroke: WOOD, width: 2)
          def blade(d) = path(d, fill: LEAF)
          def petals(n, fill) = (0...n).map { |i| leaf(32, 32, i * 360 / n, length: 20, width: 15, fill:) }.join + ring(32, 32, 4, "#E3B94A")
          def outline(d) = path(d, fill: LEAF) + path("M32 58V14")
          def sliced_twig(core) = ring(32, 32, 22, WOOD) + ring(32, 32, 15, PALE) + ring(32, 32, 7, core)
        end
      end
    end
  end
end
