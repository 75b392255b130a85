# frozen_string_literal: true

require "mail"
require "uri"

module Thistle
  module Web
    module Accounts
      # Sends letters: every one lies in the outbox (Store::Letter); where the copy knows a mail server (`bin/thistle
      # mail`), it goes out too, while nobody waits for it.
      module Post
        module_function

        # mail: {to:, subject:, body:}.
        def send(mail)
          letter = Store::Letter.create(address: mail[:to], subject: mail[:subject], body: mail[:body])
          server = MailServer.at_hand&.address
          Thread.new { deliver(Store::Letter[letter.id], server) } if server # its own row: no two threads share one
          letter
        end

        def deliver(letter, server)
          way = { address: server.host, port: server.port || 25, user_name: plain(server.user),
                  password: plain(server.password), enable_starttls_auto: true, open_timeout: 10, read_timeout: 20 }
          from = URI.decode_www_form(server.query.to_s).to_h.fetch("from", "thistle@#{server.host}")
          mail = Mail.new(from:, to: letter.address, subject: letter.subject, body: letter.body, charset: "UTF-8")
          mail.delivery_method(:smtp, way.compact)
          mail.deliver!
          letter.update(sent_at: Time.now.utc, fault: nil)
        rescue StandardError => e
          letter.update(fault: "#{e.class}: #{e.message}"[0, 250])
        end

        def plain(text) = text && URI.decode_www_form_component(text)
        private_class_method :plain
      end
    end
  end
end
