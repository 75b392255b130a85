# frozen_string_literal: true

module Thistle
  module Web
    # Small drawings in a page: icons, a patch's mark, character glyphs. Each comes with words beside it or a title.
    module Marks
      # What a patch's mark is drawn of, for files that stand alone.
      def self.drawing(state)
        @drawings ||= File.read("#{ROOT}/web/assets/img/marks.svg")
                          .scan(%r{<symbol id="(\w+)"[^>]*>(.*?)</symbol>}m).to_h
        @drawings.fetch(state)
      end

      def icon(name, label: nil)
        said = label ? %(role="img" aria-label="#{h label}") : %(aria-hidden="true")
        %(<svg class="icon" #{said}><use href="#{static("/img/icons.svg")}##{name}"></use></svg>)
      end

      def mark(state)
        %(<svg class="mark" aria-hidden="true"><use href="#{static("/img/marks.svg")}##{state}"></use></svg>)
      end

      def glyph(character, state)
        %(<svg class="glyph" aria-hidden="true"><use href="/img/glyphs.svg##{character}-#{state}"></use></svg>)
      end

      def state_tag(state)
        %(<span class="state #{Words::STATE_HUES.fetch(state)}">#{mark(state)}#{h Words.state_word(state)}</span>)
      end

      # A bar from 0 to 1, drawn: the number always stands beside it.
      def bar(share, hue)
        parts = { "bar-rest" => 100, "bar-part" => (share * 100).round(1) }
        rects = parts.map { |part, width| %(<rect width="#{width}" height="6" class="#{part}"/>) }
        %(<svg class="bar #{hue}" viewBox="0 0 100 6" preserveAspectRatio="none" aria-hidden="true">#{rects.join}</svg>)
      end
    end
  end
end
