# frozen_string_literal: true

module Thistle
  module Web
    # What a request is about: the day, the property at hand, the record that its address names (404 where there is
    # none).
    module AtHand
      def knowledge = Core::Knowledge.shipped

      # The day on the clock of the property at hand.
      def today = @today ||= (@property || property_chosen)&.today || Store::Setting.today

      # All where whoever asks may see what the page is about; the one at hand is among them as it is.
      def properties
        @properties ||= begin
          seen = seen_properties.all.select { |one| @thing.nil? || who.may?(@act, @thing, one.id) }
          Store::Together.of(seen.map { |one| one.id == @chosen&.id ? @chosen : veiled(one) })
        end
      end

      # All that they see, to turn to: [[id, name]].
      def places = @places ||= seen_properties.select_map(%i[id name])

      def seen_properties
        kept = Store::Property.kept.order(:id)
        who.property_ids ? kept.where(id: who.property_ids) : kept
      end

      # The property at hand: the patch's own, else the one chosen last, else the first.
      def property = @property ||= property_chosen || halt(404)

      # One row, whatever else a page reads: every request asks for it.
      def property_chosen
        wanted = session[:property]
        return @chosen if @chosen && [nil, @chosen.id].include?(wanted)

        found = (wanted && who.sees?(wanted) && Store::Property[wanted]) || seen_properties.first
        @chosen = found && veiled(found)
      end

      def site = property.site(today)
      # The region that the property at hand lies in, where it is set to another.
      def other_region = Store::Whereabouts.other_region(property)
      # Where it lies, as natives are judged by it.
      def place_at_hand = Store::Whereabouts.place(property, climate: site.climate.key)
      def units = property_chosen ? property.measures : Core::Units.new

      # Patches of the property at hand that have a name and want work: a dataset.
      def workable = property.live_patches.wanting_work.exclude(plant_key: nil)

      # An address may turn to a property by its id (at) or, where there are many, by its name (place); to none that
      # whoever asks does not see.
      def turn_by_query
        id = Whole.read(params["at"])
        id = places.find { |_, name| name == params["place"] }&.first.to_i if params["place"].is_a?(String)
        session[:property] = id if id.positive? && who.sees?(id)
      end

      # This property is at hand from now on, and its day.
      def turn_to(property)
        @property, @today = veiled(property), nil
        work_for(property)
      end

      # Whose shelf and people are at hand, and how its dates are written.
      def work_for(property)
        Store::Acting.group_id = property.group_id
        Core::Dates.first = property.habits.dates
      end

      # The same patch; one that nobody named yet is named first, since what is asked depends on what it is.
      def named(patch)
        return patch if patch.nil? || patch.plant

        words = "Find out what #{patch.code} is first: what is done depends on it."
        halt 422, json(error: words) if @json
        go_to "/identify?patch=#{patch.id}", words
      end

      # The patch named by an id, with its property taken as the one at hand from now on.
      def patch_at(id)
        patch = Store::Patch.live[id: Whole.read(id.to_s)] || halt(404)
        turn_to(patch.property)
        session[:property] = patch.property_id
        patch
      end

      # The patch in the query, if any.
      def patch_in_query = params["patch"].to_s.empty? ? nil : patch_at(params["patch"])

      # A record of a property named by an id, with that property taken as the one at hand.
      def zone_at(id) = of_property(Store::Zone, id)
      def search_at(id) = of_property(Store::Search, id)
      def arrival_at(id) = of_property(Store::Arrival, id)
      def layer_at(id) = of_property(Store::Layer, id)
      def report_at(id) = of_property(Store::Report, id)

      # A product of the group's shelf, taken off or not.
      def product_at(id) = Store::Product.here.first(id: Whole.read(id.to_s)) || halt(404)

      def bundle_at(id) = Store::BundleArrival[Whole.read(id.to_s)] || halt(404)

      def person_at(id) = Store::Person.here.first(id: Whole.read(id.to_s)) || halt(404)

      # Tools of the group, and the one that the address names.
      def kit_items = Store::KitItem.live.here.named.all
      def kit_at = @kit_at ||= Store::KitItem.here.first(id: Whole.read(params["id"])) || halt(404)

      # The trial that the address names.
      def trial_at = @trial_at ||= Store::TrialRun.live[id: Whole.read(params["id"])] || halt(404)

      # A work day that is not taken back, with its property as the one at hand.
      def work_day_at(id)
        day = Store::WorkDay.live[id: Whole.read(id.to_s)] || halt(404)
        turn_to(day.property)
        session[:property] = day.property_id
        day
      end

      def of_property(model, id)
        record = model[Whole.read(id.to_s)] || halt(404)
        turn_to(record.property)
        record
      end

      # A course named by an id, with its patch's property taken as the one at hand.
      def course_at(id)
        course = Store::Course[Whole.read(id.to_s)] || halt(404)
        patch_at(course.patch_id)
        course
      end

      # A day in the query; nil where it names none.
      def day_in_query(name)
        text = params[name].to_s
        text.match?(/\A\d{4}-\d\d-\d\d\z/) ? Date.iso8601(text) : nil
      rescue Date::Error
        nil
      end

      # A geometry that another page drew and sends along, with what is to be said of it.
      def drawn_before
        return {} if params["geometry"].to_s.empty?

        params.slice("geometry", "note").select { |_, text| text.is_a?(String) }
      end
    end
  end
end
