# frozen_string_literal: true

require "json"
require "rack/protection"

require "sinatra/base"
require "erubi"

module Thistle
  module Web
    # The application: what every page shares. Each room's addresses are in its own folder, its pages in views/.
    class App < Sinatra::Base
      POLICY = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; " \
               "font-src 'self'; " \
               "connect-src 'self'; worker-src 'self'; manifest-src 'self'; form-action 'self'; " \
               "frame-ancestors 'none'; base-uri 'none'"

      set :root, ROOT
      set :views, "#{ROOT}/web/views"
      set :public_folder, "#{ROOT}/public"
      set :reload_templates, false
      set :erb, escape_html: true, trim: "-"
      set :show_exceptions, false
      set :raise_errors, false
      set :dump_errors, true
      set :method_override, true
      set :static, false # Statics does it, before any session

      set :sessions, key: "thistle", same_site: :strict, httponly: true, path: "/"
      set :over_tls, []
      set :protection, except: %i[remote_token session_hijacking], use: %i[authenticity_token], frame_options: :deny,
                       reaction: :deny

      use Accounts::Door
      helpers Keyed, Photographs, AtHand, Lists, Page, Words, Marks, Once, Elsewhere, Gate
      register Today::Routes, Identify::Routes, Survey::Routes, Season::Routes, Decide::Routes, Mix::Routes,
               Work::Routes, Recheck::Routes, Replant::Routes, Records::Routes, Accounts::Routes, Pocket::Routes

      before do
        @json = request.path_info.end_with?(".json")
        request.path_info = request.path_info.delete_suffix(".json") if @json
        headers "Content-Security-Policy" => policy, "Referrer-Policy" => "same-origin",
                "Permissions-Policy" => "geolocation=(self), camera=(self)", "Cache-Control" => "private, no-store",
                "Cross-Origin-Resource-Policy" => "same-origin"
        behind_tls if request.ssl?
        halt refuse(403, "This address is answered over TLS alone.") if over_tls? && !request.ssl?
        halt refuse_elsewhere if asked_elsewhere?
        halt refuse(503, Costly::SAID) if env[Costly::CROWDED]
        fault = Sent.fault(params)
        halt refuse(400, fault) if fault
        at_the_door
        without_ground if property_chosen.nil? && !beginning?
        turn_by_query
        work_for(property_chosen) if property_chosen
        understand_phone
        sent_before
      end

      after do
        sent_now
        note_taken
        response.body = [within_reach(response.body.join)] if response.body.is_a?(Array)
        headers "X-Land" => (@property || @chosen).id.to_s if @property || @chosen # which a phone keeps it with
      end

      # Nobody's work is noted as another's.
      def call!(env)
        Store::Acting.as(nil) { Store::Acting.for_group(nil) { Core::Dates.written(nil) { super } } }
      end

      error Core::Busy do
        headers "Retry-After" => "5"
        refuse 503, env["sinatra.error"].message
      end

      error Core::BadInput do
        refuse 422, env["sinatra.error"].message
      end

      # The file itself: said in words, and tried again with the next request.
      error Sequel::DatabaseError, SQLite3::Exception, Sequel::PoolTimeout, *Store::Disk::FAULTS do
        status, _, said = LastWords.for(env["sinatra.error"])
        refuse status, said.first
      end

      # Parts within parts, deeper than any form goes; nothing of it was read.
      error Rack::QueryParser::ParamsTooDeepError do
        @params ||= {}
        refuse 400, "The page could not read this form. Open the page again and enter it there."
      end

      error Sequel::NoExistingObject do
        refuse 409, "Someone else changed this record while you were typing. Reload the page, then enter your change " \
                    "again."
      end

      not_found { refuse 404, "There is nothing at this address." }
      error { refuse 500, WRONG }

      # What cannot be right is for whoever sent it: it fills nobody's log.
      def dump_errors!(fault) = (super unless fault.is_a?(Core::BadInput))
      private :dump_errors!

      WRONG = "Something went wrong on our side. What was stored before is safe."
    end
  end
end
