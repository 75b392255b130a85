# frozen_string_literal: true

require "json"

module Thistle
  module Web
    # A record that a phone kept until it could be sent. It carries a key of the phone's making, and is done once: the
    # key stands in the same transaction as what it wrote. "Held" is said after that is committed, and to whoever sends
    # the same key again.
    module Keyed
      KEY, PHONE, LIVE = %w[HTTP_X_RECORD_KEY HTTP_X_PHONE HTTP_X_RECORD_LIVE].freeze
      MADE, OFF = %w[HTTP_X_RECORD_MADE HTTP_X_RECORD_CLOCK].freeze # ms of the phone's clock; ms that it was ahead
      PIECE = %r{\Apiece:([\h-]{36}\.\d{1,2})\|([^|]{0,200})\|([\w.+/-]{0,80})\z}
      RECORDS = Addresses::POCKET.map { |route| /\A#{route.gsub(/:\w+/, "[^/]+")}\z/ }.freeze
      LONGEST = 120 # days that a phone keeps a record
      ELSEWHERE = "This record came from another account."
      CUT_OFF = "This phone was cut off."

      # The key of a record that is sent; nil for anything else.
      def record_key
        return @record_key if defined?(@record_key)

        asked = "#{request.request_method} #{request.path_info.delete_suffix(".json")}".scrub
        @record_key = (request.env[KEY].to_s[Store::HeldRecord::KEY] if RECORDS.any? { |one| one.match?(asked) })
      end

      # Does a person wait for the answer as a page?
      def live? = request.env[LIVE] == "1"

      # What a phone names by its own keys, as this copy knows it: patches that it sent, photographs that came before.
      def understand_phone
        return unless record_key

        text = params["patch"].to_s
        params["patch"] = Store::HeldRecord.patch_id(text).to_s if text.match?(Store::HeldRecord::KEY)
        params.each_key { |name| params[name] = whole_file(params[name]) }
      end

      # The day of a record that a phone kept is the day on which it was made.
      def today
        return super unless record_key && (made = by_its_clock[:made_at])

        now = super
        on = property_chosen ? property_chosen.clock.date(made) : made.to_date
        on.between?(now - LONGEST, now) ? on : now
      end

      # Runs a route for a key; the block answers as the route would.
      def once_held(&block)
        phone = Store::Phone.seen(request.env[PHONE], who.account_id, request.user_agent)
        halt 403, as_json(cut_off: true, error: CUT_OFF) if phone.cut_off?
        look_through unless Store::HeldRecord[record_key]
        answer = nil
        Store::HeldRecord.db.transaction(mode: :immediate) do
          known, before = Store::HeldRecord[record_key], written
          answer = known ? already(known) : hold(phone, catch(:halt, &block), before)
          raise Sequel::Rollback if response.status >= 400
        end
        Store::Pieces.new(who.account_id).drop(@pieces || []) if response.status < 400
        answer
      end

      private

      def as_json(**data)
        content_type :json
        JSON.generate(data)
      end

      def already(known)
        return held(known.place) if known.account_id == who.account_id

        status 409
        as_json(error: ELSEWHERE)
      end

      # before: rows that were written until then. Led on without having written anything, it was no record.
      def hold(phone, answer, before)
        settle_status(answer)
        return refused(answer) if response.status >= 400
        return nothing_kept if written == before

        place = response["Location"]&.then { |to| URI(to).request_uri }
        Store::HeldRecord.create(key: record_key, account_id: who.account_id, phone_id: phone.id, place:,
                                 route: env.fetch("sinatra.route"), held_at: Time.now.utc, **by_its_clock)
        status 200
        response.headers.delete("Location")
        session.delete(:flash) unless live?
        held(place)
      end

      # The page with its complaints for whoever waits, else what was wrong, by field.
      def refused(answer)
        return answer if live?

        forms = (@shown || {}).values.grep(Form)
        as_json(error: @refusal, fields: forms.reduce({}) { |all, form| all.merge(form.errors) })
      end

      def written = Store::HeldRecord.db.synchronize(&:total_changes)

      def nothing_kept
        status 422
        response.headers.delete("Location")
        @refusal = session.delete(:flash) || "The server kept nothing of it."
        as_json(error: @refusal, fields: {})
      end

      # Sinatra reads the status out of what a route answers; here it is wanted before.
      def settle_status(answer)
        code = answer.is_a?(Array) ? answer.first : answer
        status(code) if code.is_a?(Integer)
      end

      def held(place) = as_json(held: true, place:)

      # When it was made, by the phone's clock put right.
      def by_its_clock
        made, off = request.env.values_at(MADE, OFF).map { |text| Integer(text.to_s, exception: false) }
        return {} unless made&.between?(0, 10**14)

        off = 0 unless off&.between?(-10**12, 10**12)
        { made_at: Time.at((made - off) / 1000.0).utc, clock_off: off / 1000 }
      end

      # "piece:KEY|name|type" as the file that came in pieces, as if it came along.
      def whole_file(value)
        return value.map { |one| whole_file(one) } if value.is_a?(Array)

        key, name, type = value.to_s.match(PIECE)&.captures if value.is_a?(String)
        path = key && Store::Pieces.new(who.account_id).path(key)
        return value unless path && File.file?(path)

        (@pieces ||= []) << key
        Sinatra::IndifferentHash[filename: name, type:, name: "photo", tempfile: File.open(path, "rb")]
      end
    end
  end
end
