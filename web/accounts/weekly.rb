# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # A letter each Monday to those who want it: what others did within seven days where they may see it, where they
      # are named, and the visits that they take.
      class Weekly
        DONE = "weekly" # a setting: the week that was written last

        def initialize(today)
          @today = today
        end

        # Of several processes one writes. How many letters.
        def call
          return 0 unless @today.monday? && Store::Setting.claim(DONE, @today.strftime("%G-W%V"))

          Store::Account.there.where(weekly: true).all.count do |account|
            Core::Dates.written(Store::Property[places(account).min]&.habits&.dates) { write(account) }
          end
        end

        # The letter; nil where nothing is new.
        def write(account)
          news = Store::News.new(account, places(account), staff: false, since: a_week_ago)
          return if news.none?

          Post.send(to: account.email, subject: "What is new, #{Words.full_day(@today)}", body: body(account, news))
        end

        private

        def places(account) = account.held(@today).map(&:property_id).uniq

        def a_week_ago
          Store::Trail.where(Sequel[:at] < (Time.now.utc - (7 * 86_400))).max(:id).to_i
        end

        def body(account, news)
          visits = news.visits.map { |one| "You take #{one.patch.code}, due #{Words.full_day(one.due_on)}." }
          visits << "You take #{news.patches.map(&:code).join(", ")}." if news.patches.any?
          named = news.mentions.map { |one| "#{one.said_by} on #{one.patch.code}: #{one.body}" }
          done = news.lines.map do |one|
            "#{one.name} #{one.act} #{TrailDesk.counted(one.count, one.kind)}."
          end
          ["#{account.name},", "", *visits, *named, *done, "", Door.address].join("\n")
        end
      end
    end
  end
end
