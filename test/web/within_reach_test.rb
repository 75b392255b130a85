# frozen_string_literal: true

require "test_helper"

module Thistle
  # What a page keeps for whoever may not do all that it offers.
  class WithinReachTest < Minitest::Test
    def kept(page, *refused) = Web::WithinReach.new { |verb, path| !refused.include?("#{verb} #{path}") }.call(page)

    def test_forms_go_by_verb_and_path
      form = ->(inner, path = "/a/1") { %(é<form action="#{path}" method="post">#{inner}<b>x</b></form>ü) }

      assert_equal "éü", kept(form[""], "POST /a/1")
      assert_equal form[""], kept(form[""], "GET /a/1", "DELETE /a/1")
      gone = form[%(<input type="hidden" name="_method" value="delete">)]

      assert_equal "éü", kept(gone, "DELETE /a/1")
      assert_equal gone, kept(gone, "POST /a/1")
      assert_equal "éü", kept(form["", "/a?b=1&amp;c=2"], "POST /a?b=1&c=2")
    end

    def test_links_become_words_but_in_menus_and_on_buttons
      page = %(<p>Ä <a href="/x#y">one <b>ß</b></a> <a class="btn p" href="/x">go</a> <a href="/z">two</a></p>) +
             %(<nav><a href="/x">menu</a><a href="/z">kept</a></nav><a href="https://e.example/x">out</a>)

      assert_equal %(<p>Ä <span>one <b>ß</b></span>  <a href="/z">two</a></p><nav><a href="/z">kept</a></nav>) +
                   %(<a href="https://e.example/x">out</a>), kept(page, "GET /x")
      assert_same page, kept(page)
    end

    def test_nothing_empty_is_left
      form = %(<form action="/a" method="post"></form>)
      page = "<section><h2 class=\"rule\">Do it</h2> <details class=\"c\"><summary>More <i>x</i></summary> #{form}" \
             "</details> </section><h2>Kept</h2><p>words</p>"

      assert_equal %(<section> </section><h2>Kept</h2><p>words</p>), kept(page, "POST /a").squeeze(" ")
    end

    # A page cut off in the middle of a form or a link is no trap.
    def test_pages_that_end_early
      ["<form action=\"/a\" method=\"post\">x", "<a href=\"/a\">x", "<a href=\"/a\"",
       "<nav><a href=\"/a\">"].each do |page|
        assert_kind_of String, kept(page, "GET /a", "POST /a")
      end
    end
  end
end
