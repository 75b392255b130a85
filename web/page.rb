# frozen_string_literal: true

module Thistle
  module Web
    # How a request is answered: as a page or as JSON, sent on, refused; and what views are put together from.
    module Page
      ROOMS = %w[today identify survey season decide mix work recheck replant].freeze
      BEGINNING = %r{\A/(records/properties(/new|/place|/\d+/bring-back)?|glossary/terms|img/.*|
                         account(/.*)?|shared/.*|outbox|pocket(/.*)?)\z}x
      LISTED = 200 # records of a long list in one answer

      # One answer, two dresses: as JSON, at .json, what the block answers, else the view. A bench's JSON that holds
      # errors is a 422; status says the same of a form sent back.
      def show(view, status: 200, **locals)
        status(status)
        @shown = locals
        return page(view, locals) unless @json

        data = block_given? ? yield : halt(404)
        status(422) if data.is_a?(Hash) && data[:errors]&.any?
        json(data)
      end

      def page(view, locals)
        @room = view.split("/").first
        erb(view.to_sym, layout: :layout, locals:)
      end

      # A long list as JSON, a part at a time by id: the patches that fit; `Link` says where the rest is.
      def paged(patches, &)
        after = Whole.read(params["after"])
        rows = patches.unordered.where(Sequel[:id] > after).order(:id).limit(LISTED + 1).all
        rows.pop && go_on("after" => rows.last.id) if rows.size > LISTED
        rows.map(&)
      end

      # Tells a program where the next part of a long answer is (RFC 8288).
      def go_on(query)
        headers("Link" => %(<#{request.path_info}.json?#{Rack::Utils.build_query(query)}>; rel="next"))
      end

      def json(data)
        content_type :json
        JSON.generate(data)
      end

      # The strict policy, and the one host that the property takes map tiles from, if any.
      def policy
        host = property_chosen&.tile_url&.slice(%r{\Ahttps://[^/]+})
        host ? App::POLICY.sub("img-src 'self'", "img-src 'self' #{host}") : App::POLICY
      end

      # Is it asked for as a host that a proxy stands before?
      def over_tls? = settings.over_tls.include?(request.host)

      # Where a proxy ends TLS, the session never leaves without it.
      def behind_tls
        session.options[:secure] = true
        headers "Strict-Transport-Security" => "max-age=31536000"
      end

      # The same for everybody, for so many seconds: it knows no session.
      def public_for(seconds)
        cache_control :public, max_age: seconds
        request.session_options[:skip] = true
      end

      # A picture that this browser may keep for so many seconds; where people have accounts, two of them may share it,
      # and it asks each time.
      def kept_for(seconds)
        who.everyone? ? cache_control(:private, max_age: seconds) : cache_control(:private, :no_cache)
      end

      # May it be asked before there is any property?
      def beginning?
        request.path_info.match?(BEGINNING)
      end

      # The address of a file of the interface.
      def static(path) = Statics.address(path)

      def refuse(code, message)
        status code
        @refusal = message
        return json({ error: message }) if @json || (record_key && !live?)

        @room = nil
        erb(:refused, layout: :layout, locals: { message: })
      end

      def go_to(path, message = nil)
        session[:flash] = message if message
        redirect to(path), 303
      end

      # The next page offers a way back: the address that undoes, or the last change of a shape.
      def offer_undo(address = nil)
        last = Store::Change.undoable.where(property_id: property.id).get(:id) unless address
        session[:undo] = address || "/survey/changes/#{last}/undo"
      end

      def flash = session.delete(:flash)

      def csrf = Rack::Protection::AuthenticityToken.token(env["rack.session"])

      def plot(name, **locals)
        erb(:"../plots/#{name}", layout: false, locals:)
      end

      def band = @band ||= Core::Season::Band.new(site)

      # Is the year unfolded? As the person left it; else where a page is about the year.
      def band_open?
        left = request.cookies["band"]
        left ? left == "open" : (%w[today season].include?(@room) || !@band_rows.nil?)
      end

      # The year as one line, the same all day.
      def drawn_band_line = Core::Kept::ANSWERS.fetch([:band_line, site]) { plot "band_line", band: }

      # Marks of the year with where each label stands and in which row, so that none lies on another: [[mark, x, row]].
      # The block says where a day is.
      def band_labels(marks, width)
        ends = [-LABEL, -LABEL, -LABEL]
        marks.map do |mark|
          half = mark.label.size * LETTER / 2
          at = yield(mark.date).clamp(half, width - half)
          row = ends.index { |past| past < at - half } || ends.each_with_index.min.last
          ends[row] = at + half + 4
          [mark, at.round(1), row]
        end
      end
      DESK, PHONE = 1232.0, 358.0 # widths of the band
      LABEL, LETTER = 100.0, 6.0 # of a label and one of its letters

      # The band drawn; the same all day for the same rows, so it is drawn once.
      def drawn_band(rows)
        Core::Kept::ANSWERS.fetch([:band, site, property.name, rows]) do
          [DESK, PHONE].map { |width| plot "band", band:, rows:, width: }.join
        end
      end

      def part(name, **locals) = erb(name.to_sym, layout: false, locals:)

      # A labelled field of a form, with its message.
      def field(form, name, label, type: "text", unit: nil, attrs: "")
        part("_field", form:, name:, label:, type:, unit:, attrs: attrs.empty? ? "" : " #{attrs}")
      end

      # The field for the name of whoever decides; the name itself where the account signs.
      def signed_field(form, name, label)
        signs? ? part("_signed", name:, label:) : field(form, name, label)
      end

      # A list to choose one from, with its label. options: {value => words}; none: words for no choice.
      def menu(name, label, options, chosen, none: nil, id: "f-#{name}")
        part("_menu", name:, label:, options:, chosen:, none:, id:)
      end

      # Plants for a menu, those of the property's region before those of elsewhere: {heading => {key => name}}, or
      # {key => name} where it has none. latin: with their scientific names.
      def plant_menu(plants, latin: false)
        named = ->(list) { list.sort_by(&:name).to_h { |plant| [plant.key, plant_named(plant, latin:)] } }
        region = knowledge.regions[property.region] or return named[plants]

        here, elsewhere = plants.partition { |plant| plant.grows_in?(region.key) }
        { region.label => named[here], "From elsewhere: new here" => named[elsewhere] }.reject { |_, some| some.empty? }
      end

      # "Tradescantia, Wandering willie", as people of the region call it too.
      def plant_named(plant, latin:)
        besides = knowledge.called(plant.key, property.region)
        [plant.name, besides].compact.join(", ") + (latin ? " (#{plant.scientific})" : "")
      end

      # What labels here call the number that they are registered by.
      def registration_named = property.habits.register&.sub(/\A[a-z]/, &:upcase) || "Registration number"

      # A row of buttons, one of which is chosen.
      def choice(name, label, options, chosen, hint: nil)
        part("_choice", name:, label:, options:, chosen:, hint:)
      end
    end
  end
end
