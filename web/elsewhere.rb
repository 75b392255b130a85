# frozen_string_literal: true

module Thistle
  module Web
    # What another site asks a browser to fetch here. A person who follows a link is let in, but for pages that take a
    # while to work out: those a person opens here. Pictures, frames and scripts of other sites are never answered.
    # Browsers say where a request comes from (Fetch Metadata); whoever says nothing is no browser, and asks for
    # oneself.
    module Elsewhere
      OPEN = %r{\A/calendars/} # read by other programs, with a key

      # Is it asked for from another site, and not to be answered there?
      def asked_elsewhere?
        return false unless request.env["HTTP_SEC_FETCH_SITE"] == "cross-site" && !request.path_info.match?(OPEN)

        !followed? || (request.safe? && (@json || Costly.path?(request.path_info)))
      end

      # Did a person follow a link?
      def followed?
        request.env.values_at("HTTP_SEC_FETCH_MODE", "HTTP_SEC_FETCH_DEST") == %w[navigate document]
      end

      def refuse_elsewhere
        status 403
        return json({ error: "This is not answered to other sites." }) if @json || !followed?

        @room = nil
        erb(:elsewhere, layout: :layout, locals: { address: request.fullpath })
      end
    end
  end
end
