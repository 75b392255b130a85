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
    ROUNDS, MOST_MS, SIGN_IN_MS = 15, 2, 300
    WORD = "seven wet boots in a row"

    def initialize(folder)
      @app = Web::Boot.call(folder, hosts: ["example.org"])
      Demo::Land.new.load
      LOADER.eager_load
      @people = Store::Account.order(:id).all
    end

    def run
      PAGES.each { |path| middle(path) } # warm
      plain = without_accounts { PAGES.to_h { |path| [path, middle(path)] } }
      fill
      Store::Setting.write(Store::Account::DEMO, "")
      @people.first(4).each { |account| beside(account, plain) }
    end

    private

    def without_accounts
      Store::Setting.write(Store::Account::DEMO, "")
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

    def beside(account, plain)
      Web::Accounts::Newcomer.password(account, WORD)
      @cookie = nil
      token = get("/account/sign-in").body[/name="authenticity_token" value="([^"]+)"/, 1]
      taken = clock do
        post("/account/sign-in", authenticity_token: CGI.unescapeHTML(token), login: account.email, password: WORD)
      end
      puts format("%-44s %8.1f ms   (asked: under %d ms)", "#{account.name} signs in", taken * 1000, SIGN_IN_MS)
      PAGES.each do |path|
        own = middle(path) or next
        puts format("%-44s %8.1f ms   %+.1f ms beside no accounts (asked: at most %d)", "  #{path}", own * 1000,
                    (own - plain[path]) * 1000, MOST_MS)
      end
    end

    def middle(path)
      3.times { get(path) }
      return unless get(path).status == 200

      Array.new(ROUNDS) { clock { get(path) } }.sort[ROUNDS / 2]
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
