# frozen_string_literal: true

module Thistle
  module Web
    # What every route leans on: today, the property at hand, and one way to answer as page or as JSON.
    module Page
      ROOMS = %w[today identify survey season decide mix work recheck replant].freeze

      def knowledge = Core::Knowledge.shipped
      def today = @today ||= Store::Setting.today
      def properties = @properties ||= Store::Property.order(:id).all

      # The property at hand: the patch's own, else the one chosen last, else the first.
      def property
        @property ||= property_chosen || halt(404)
      end

      # The strict policy, and the one host that the property takes map tiles from, if any.
      def policy
        host = property_chosen&.tile_url&.slice(%r{\Ahttps://[^/]+})
        host ? App::POLICY.sub("img-src 'self'", "img-src 'self' #{host}") : App::POLICY
      end

      def property_chosen = properties.find { |p| p.id == session[:property] } || properties.first

      def site = property.site(today)
      def units = properties.any? ? property.measures : Core::Units.new
      def band = @band ||= Core::Season::Band.new(site)

      # The band drawn; the same all day for the same rows, so it is drawn once.
      def drawn_band(rows)
        Core::Kept::ANSWERS.fetch([:band, site, property.name, rows]) { plot "band", band:, rows: }
      end

      # The patch named by an id, with its property taken as the one at hand.
      def patch_at(id)
        patch = Store::Patch.live[id: Whole.read(id.to_s)] || halt(404)
        @property = patch.property
        session[:property] = patch.property_id
        patch
      end

      # A record of a property named by an id, with that property taken as the one at hand.
      def zone_at(id) = of_property(Store::Zone, id)
      def search_at(id) = of_property(Store::Search, id)
      def arrival_at(id) = of_property(Store::Arrival, id)
      def layer_at(id) = of_property(Store::Layer, id)

      # A course named by an id, with its patch's property taken as the one at hand.
      def course_at(id)
        course = Store::Course[Whole.read(id.to_s)] || halt(404)
        patch_at(course.patch_id)
        course
      end

      def of_property(model, id)
        record = model[Whole.read(id.to_s)] || halt(404)
        @property = record.property
        record
      end

      # The next page offers a way back: the address that undoes, or the last change of a shape.
      def offer_undo(address = "/survey/changes/#{Store::Change.undoable.get(:id)}/undo")
        session[:undo] = address
      end

      # A geometry that another page drew and sends along, with what is to be said of it.
      def drawn_before = params["geometry"].to_s.empty? ? {} : params.slice("geometry", "note").select { |_, text| text.is_a?(String) }

      # The report named by an id, with its property taken as the one at hand.
      def report_at(id)
        report = Store::Report[Whole.read(id.to_s)] || halt(404)
        @property = report.property
        report
      end

      # The patch in the query, if any.
      def patch_in_query = params["patch"].to_s.empty? ? nil : patch_at(params["patch"])

      # A day in the query; nil where it names none.
      def day_in_query(name)
        text = params[name].to_s
        text.match?(/\A\d{4}-\d\d-\d\d\z/) ? Date.iso8601(text) : nil
      rescue Date::Error
        nil
      end

      # What the band carries on a plant's or a patch's page: its phases in one row, then when each method is right.
      def band_rows(plant, choices = nil)
        choices ||= property.choices(plant, today, natives_near: true, water_m: 1000.0)
        Core::Kept::ANSWERS.fetch([:rows, site, choices]) { plant_year(Core::Decide::Bench.new(choices, site)) }
      end

      def plant_year(bench)
        year = bench.site.year(bench.choices.date)
        phases = bench.choices.calendar(bench.site).phenophases(year).map { |span| [span.from, span.to, span.phase.to_s] }
        removals = property.weed?(bench.choices.plant) ? bench.named.select(&:removes?) : []
        windows = removals.map { |r| [r.name, "window", bench.windows(r).map { |w| [w.from, w.to] }] }.reject { |_, _, spans| spans.empty? }
        [["phases", "", phases], *windows.first(4)]
      end

      # Patches of the property at hand that have a name and want work: a dataset.
      def workable = property.live_patches.wanting_work.exclude(plant_key: nil)

      # A long list as JSON, a page at a time by id: the patches that fit; `Link` says where the rest is.
      def paged(patches, &)
        rows = patches.unordered.where(Sequel[:id] > Whole.read(params["after"])).order(:id).limit(PAGE + 1).all
        rows.pop && go_on("after" => rows.last.id) if rows.size > PAGE
        rows.map(&)
      end
      PAGE = 200

      # Tells a program where the next page of a long answer is (RFC 8288).
      def go_on(query) = headers("Link" => %(<#{request.path_info}.json?#{Rack::Utils.build_query(query)}>; rel="next"))

      # One answer, two dresses: as JSON, at .json, what the block answers, else the view. A bench's JSON that holds
      # errors is a 422; status says the same of a form sent back.
      def show(view, status: 200, **locals)
        status(status)
        return page(view, locals) unless @json

        data = block_given? ? yield : halt(404)
        status(422) if data.is_a?(Hash) && data[:errors]&.any?
        json(data)
      end

      def page(view, locals)
        @room = view.split("/").first
        erb(view.to_sym, layout: :layout, locals:)
      end

      # Is every text in it valid UTF-8 without a NUL, however deep?
      def readable?(value)
        case value
        when Hash then value.all? { |key, inner| readable?(key) && readable?(inner) }
        when Array then value.all? { |inner| readable?(inner) }
        when String then value.dup.force_encoding(Encoding::UTF_8).valid_encoding? && !value.b.include?("\0")
        else true
        end
      end

      def json(data)
        content_type :json
        JSON.generate(data)
      end

      # May it be asked before there is any property?
      def beginning? = request.path_info.match?(%r{\A/(records/properties(/new)?|img/.*)\z})

      # The address of a file of the interface.
      def static(path) = Statics.address(path)

      def refuse(code, message)
        status code
        return json({ error: message }) if @json

        @room = nil
        erb(:refused, layout: :layout, locals: { message: })
      end

      def go_to(path, message = nil)
        session[:flash] = message if message
        redirect to(path), 303
      end

      def flash = session.delete(:flash)

      def csrf = Rack::Protection::AuthenticityToken.token(env["rack.session"])

      def plot(name, **locals)
        erb(:"../plots/#{name}", layout: false, locals:)
      end

      def part(name, **locals) = erb(name.to_sym, layout: false, locals:)

      # A labelled field of a form, with its message.
      def field(form, name, label, type: "text", unit: nil, attrs: "")
        part("_field", form:, name:, label:, type:, unit:, attrs: attrs.empty? ? "" : " #{attrs}")
      end

      # A row of buttons, one of which is chosen.
      def choice(name, label, options, chosen, hint: nil)
        part("_choice", name:, label:, options:, chosen:, hint:)
      end
    end
  end
end
