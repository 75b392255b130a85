# frozen_string_literal: true

module Thistle
  module Web
    # A page for whoever may not do all that it offers: forms and buttons that would be refused are not drawn, links
    # that would lead nowhere are plain words. One place for all pages, so that none forgets it.
    class WithinReach
      FORM, LINK = /<form\b[^>]*>/m, /<a\b[^>]*>/m
      # What holds nothing any more once its form is gone.
      EMPTY = [%r{<details\b[^>]*>\s*<summary\b[^>]*>[^<]*(?:<(?!/summary)[^<]*)*</summary>\s*</details>}m,
               %r{<p class="moves">\s*</p>}m].freeze

      # The block says whether a verb and a path may be asked for.
      def initialize(&may)
        @may = may
        @known = {}
      end

      def call(page)
        less = parts(parts(page, FORM, "</form>") { |tag| keep_form?(tag) }, LINK, "</a>") { |tag| keep_link?(tag) }
        less == page ? page : EMPTY.reduce(less) { |text, pattern| text.gsub(pattern, "") }
      end

      private

      # The page with those parts from an opening tag to its end that the block keeps; of others, what it makes of them.
      def parts(page, opening, closing)
        kept, at = +"", 0
        while (found = opening.match(page, at))
          past = page.index(closing, found.end(0)) or break
          past += closing.size
          kept << page[at...found.begin(0)]
          kept << instead(page[found.begin(0)...past], found[0], closing, yield(page[found.begin(0)...past]))
          at = past
        end
        kept << page[at..]
      end

      def instead(part, tag, closing, keep)
        return part if keep
        return "" if closing == "</form>" || tag.match?(/class="[^"]*\bbtn\b|data-key/)

        "<span>#{part[tag.size...-closing.size]}</span>"
      end

      def keep_form?(part)
        tag = part[FORM]
        path = attribute(tag, "action") or return true
        verb = part[/name="_method" value="(\w+)"/, 1] || attribute(tag, "method") || "get"
        may?(verb.upcase, path)
      end

      def keep_link?(part)
        path = attribute(part[LINK], "href")
        path.nil? || !path.match?(%r{\A/(?!/)}) || may?("GET", path)
      end

      def attribute(tag, name) = tag[/\b#{name}="([^"]*)"/, 1]&.then { |text| CGI.unescapeHTML(text) }

      def may?(verb, path)
        place = path.split("#").first
        @known.fetch([verb, place]) { |key| @known[key] = @may.call(*key) }
      end
    end
  end
end
