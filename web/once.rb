# frozen_string_literal: true

require "digest"
require "securerandom"

module Thistle
  module Web
    # Sent twice counts once: a form carries a key of its page, and what is sent with the key and the same words again
    # is led where the first led.
    module Once
      FORM = /\A\h{24}\z/
      SECONDS = 15 # that the second waits for the first
      AGAIN = "This form was sent twice. The first is still being stored. Look again in a minute."

      # A key for a form.
      def once = SecureRandom.hex(12)

      # Before anything reads a form: true where it was done already, or is being done, and an answer stands.
      def sent_before
        key = once_key or return
        first = Store::SentForm.claim(key)
        return @once = key if first.nil?

        place = first.place || Store::SentForm.place(key, SECONDS)
        halt(place ? redirect(place, 303) : refuse(409, AGAIN))
      end

      # After it: done is what leads on; what was refused may be sent again.
      def sent_now
        return unless @once

        response.status == 303 ? Store::SentForm.settle(@once, response["Location"]) : Store::SentForm.release(@once)
      rescue Sequel::Error
        nil # what was asked for is done; a second that cannot be told from the first is asked to look
      end

      private

      # The page's key with what was typed: the same form filled in otherwise is another.
      def once_key
        page = params["once"]
        return if record_key # done once by its own key
        return unless page.is_a?(String) && page.match?(FORM) && !request.safe?
        return if request.env["HTTP_HX_REQUEST"] # a page that asks what its form comes to while it is filled in

        said = params.except("authenticity_token", "once", "captures", "splat").map { |pair| pair.map { |v| plain(v) } }
        Digest::SHA256.hexdigest([request.request_method, request.path_info, page, said.sort_by(&:first)].inspect)
      end

      def plain(value)
        return value.to_s unless value.is_a?(Hash) && value[:tempfile]

        "#{value[:filename]} #{value[:tempfile].size}"
      end
    end
  end
end
