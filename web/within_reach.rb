# frozen_string_literal: true

module Thistle
  module Web
    # A page for whoever may not do all that it offers: forms and buttons that would be refused are not drawn, links
    # that would lead nowhere are plain words. One place for all pages, so that none forgets it.
    class WithinReach
      ACTION, METHOD, HREF = %w[action method href].map { |name| /\b#{name}="([^"]*)"/ }
      FORM, LINK, MENU = /<form\b[^>]*>/m, /<a\b[^>]*>/m, %r{<nav\b.*?</nav>}m
      # What holds nothing any more once its form is gone.
      EMPTY = [%r{<details\b[^>]*>\s*<summary\b[^>]*>[^<]*(?:<(?!/summary)[^<]*)*</summary>\s*</details>}m,
               %r{<p class="moves">\s*</p>}m,
               %r{<h2\b[^>]*>[^<]*(?:<(?!/h2)[^<]*)*</h2>(?=\s*(?:<h2\b|</section>))}m].freeze

      # The block says whether a verb and a path may be asked for.
      def initialize(&may)
        @may = may
        @known = {}
      end

      # Read as bytes: places in text of several bytes a letter are slow to find.
      def call(page)
        less = less_of(page.b)
        less.force_encoding(page.encoding)
      end

      private

      def less_of(page)
        less = parts(page, FORM, "</form>") { |form| keep_form?(form) ? form : "" }
        less = less.gsub(MENU) { |menu| links(menu) { "" } }
        less = links(less) { |tag, words| tag.match?(/class="[^"]*\bbtn\b/) ? "" : "<span>#{words}</span>".b }
        less == page ? page : EMPTY.reduce(less) { |text, pattern| text.gsub(pattern, "") }
      end

      # The page with what the block makes of each part from an opening tag to its end.
      def parts(page, opening, closing)
        made, at = "".b, 0
        while (found = opening.match(page, at))
          past = page.index(closing, found.end(0)) or break
          past += closing.size
          made << page[at...found.begin(0)] << yield(page[found.begin(0)...past])
          at = past
        end
        made << page[at..]
      end

      # The page with its links, those out of reach as the block says: their tag, the words between.
      def links(page)
        parts(page, LINK, "</a>") do |link|
          tag = link[LINK]
          keep_link?(tag) ? link : yield(tag, link[tag.size...-4])
        end
      end

      def keep_form?(part)
        tag = part[FORM]
        path = value(tag, ACTION) or return true
        verb = part[/name="_method" value="(\w+)"/, 1] || value(tag, METHOD) || "get"
        may?(verb.upcase, path)
      end

      def keep_link?(tag)
        path = value(tag, HREF)
        path.nil? || !path.match?(%r{\A/(?!/)}) || may?("GET", path)
      end

      def value(tag, attribute)
        text = tag[attribute, 1]&.force_encoding(Encoding::UTF_8)
        text&.include?("&") ? CGI.unescapeHTML(text) : text
      end

      def may?(verb, path)
        place = path.split("#").first
        @known.fetch([verb, place]) { |key| @known[key] = @may.call(*key) }
      end
    end
  end
end
