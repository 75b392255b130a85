# frozen_string_literal: true

require "tmpdir"
require "rack/mock"
require_relative "../thistle"
require_relative "measure"

module Thistle
  # What a door costs: signing in; a page for each role beside the same page without accounts; 300 accounts on fifty
  # properties.
  class AccountsBench
    include Measure

    PAGES = ["/", "/survey", "/survey/patches/1", "/work", "/recheck"].freeze
    PAIRS, MOST_MS, SIGN_IN_MS = 25, 2, 300
    WORD = "seven wet boots in a row"

    def initialize(folder)
      @app = Web::Boot.call(folder, hosts: ["example.org"])
      Demo::Land.new.load
      LOADER.eager_load
      @people = Store::Account.order(:id).all
    end

    def run
      fill
      Store::Setting.write(Store::Account::DEMO, "")
      @people.first(4).each { |account| beside(account) }
    end

    private

    def without_accounts
      Store::Account.dataset.update(status_id: Store::Account::CLOSED)
      yield
    ensure
      Store::Account.dataset.update(status_id: Store::Account::OPEN)
    end

    # 300 accounts, fifty properties.
    def fill
      first = Store::Property.first
      places = Array.new(45) do |n|
        Store::Property.create(**first.values.except(:id), name: "Ground #{n}", prefix: "G#{n}")
      end
      300.times do |n|
        account = Store::Account.create(name: "Person #{n}", email: "p#{n}@a.example", status_id: 2)
        Store::Membership.give(account, places[n % 45], "volunteer")
      end
    end

    def beside(account)
      Web::Accounts::Newcomer.password(account, WORD)
      @cookie = nil
      token = get("/account/sign-in").body[/name="authenticity_token" value="([^"]+)"/, 1]
      taken = clock do
        post("/account/sign-in", authenticity_token: CGI.unescapeHTML(token), login: account.email, password: WORD)
      end
      puts format("%-44s %8.1f ms   (asked: under %d ms)", "#{account.name} signs in", taken * 1000, SIGN_IN_MS)
      PAGES.each { |path| pairs(path) }
    end

    # The page signed in, and at once without accounts, over and over: the middle of the differences, so that what the
    # machine does meanwhile falls on both.
    def pairs(path)
      3.times { without_accounts { get(path) } }
      return unless get(path).status == 200

      own, plain = Array.new(PAIRS) { [calm { get(path) }, without_accounts { calm { get(path) } }] }.transpose
      more = own.zip(plain).map { |one, other| one - other }.sort
      puts format("  %-42s %8.1f ms   %+.1f ms beside no accounts, half of the times %+.1f to %+.1f (asked: %d)",
                  path, middle(own) * 1000, *[2, 1, 3].map { |n| more[PAIRS * n / 4] * 1000 }, MOST_MS)
    end

    def middle(times) = times.sort[times.size / 2]

    # Without the rubbish of the request before.
    def calm(&)
      GC.start
      clock(&)
    end

    def get(path)
      keep(Rack::MockRequest.new(@app).get(path, "HTTP_HOST" => "example.org", "HTTP_COOKIE" => @cookie.to_s))
    end

    def post(path, params)
      keep(Rack::MockRequest.new(@app).post(path, params:, "HTTP_HOST" => "example.org", "HTTP_COOKIE" => @cookie.to_s))
    end

    def keep(answer)
      @cookie = answer["set-cookie"][/\A[^;]+/] if answer["set-cookie"]
      answer
    end
  end
end

Dir.mktmpdir { |folder| Thistle::AccountsBench.new(folder).run } if $PROGRAM_NAME == __FILE__
