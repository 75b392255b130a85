# frozen_string_literal: true

require "cgi"

module Thistle
  module Web
    # A page for whoever may not do all that it offers: forms and buttons that would be refused are not drawn, links
    # that would lead nowhere are plain words. One place for all pages, so that none forgets it.
    class WithinReach
      ACTION, METHOD, HREF = %w[action method href].map { |name| /\b#{name}="([^"]*)"/ }
      FORM, LINK, MENU = /<form\b[^>]*>/m, /<a\b[^>]*>/m, %r{<nav\b.*?</nav>}m
      OTHER_VERB, BUTTON = /name="_method" value="(\w+)"/, /class="[^"]*\bbtn\b/
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
        bytes = page.b
        less = without_links(without_forms(bytes))
        return page if less.equal?(bytes)

        EMPTY.reduce(less) { |text, pattern| text.gsub(pattern, "") }.force_encoding(page.encoding)
      end

      private

      def without_forms(page)
        without(page, FORM, "</form>") { |tag, rest| "" unless may?(verb(tag, rest), value(tag, ACTION)) }
      end

      # In a menu a link that leads nowhere goes whole; elsewhere its words stay, unless it is a button.
      def without_links(page)
        menus = page.to_enum(:scan, MENU).map { Regexp.last_match.offset(0) }
        without(page, LINK, "</a>") do |tag, words, at|
          next if may?("GET", value(tag, HREF))

          whole = tag.match?(BUTTON) || menus.any? { |from, past| at.between?(from, past) }
          whole ? "" : "<span>#{words.call}</span>".b
        end
      end

      # The page with other words in the place of parts. The block is given a part's opening tag, what reads the rest
      # of it, and where it begins; it answers nil where the part stays. The same page where all stay.
      def without(page, opening, closing)
        made, from, at = nil, 0, 0
        while (start = page.index(opening, at))
          tag = Regexp.last_match(0)
          at = start + tag.size
          past = nil
          rest = -> { page[at...(past ||= page.index(closing, at) || page.size)] }
          instead = yield(tag, rest, start) or next
          (made ||= "".b) << page[from...start] << instead
          at = from = (past || page.index(closing, at) || page.size) + closing.size
        end
        made ? made << page[from..].to_s : page
      end

      def verb(tag, rest)
        method = value(tag, METHOD)&.upcase || "GET"
        method == "POST" ? rest.call[OTHER_VERB, 1]&.upcase || method : method
      end

      def value(tag, attribute)
        text = tag[attribute, 1] or return
        text.force_encoding(Encoding::UTF_8)
        text.include?("&") ? CGI.unescapeHTML(text) : text
      end

      # What is no path of ours is for whoever serves it.
      def may?(verb, path)
        return true unless path&.start_with?("/") && !path.start_with?("//")

        @known.fetch(verb) { @known[verb] = {} }.fetch(path) do
          @known[verb][path] = @may.call(verb, path.split("#").first)
        end
      end
    end
  end
end
