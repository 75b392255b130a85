# frozen_string_literal: true

module Thistle
  module Web
    # Lists that pages choose from or show beside what they are about. A view asks for them here and never asks the
    # file itself (test/house/views_test.rb).
    module Lists
      LAST, WALKED = 12, 200 # rows of a list that goes on; patches that a practice walk offers

      # Products on the shelf by name; those with known contents; all that ever stood there, for older records.
      def shelf = @shelf ||= shelf_ever.reject(&:deleted_at)
      def mixable_shelf = shelf.select { |product| product.label.mixable? }
      def shelf_ever = @shelf_ever ||= Store::Product.here.named.all

      def sprayers = Store::Calibration.live.here.newest.limit(Store::Calibration::LISTED).all
      def seed_shelf = Store::SeedOnHand.live.here.order(:native_key, :id).all

      # People of the list by name; all that ever stood on it, for older records; {id => name} of them.
      def people_listed = people_ever.reject(&:deleted_at)
      def people_ever = @people_ever ||= Store::Person.here.named.all
      def people_names = @people_names ||= Store::Person.names

      def kit_usable = Store::KitItem.usable

      # Of the property at hand, the last ones first.
      def layers = @layers ||= property.layers_dataset.live.reverse(:id).all
      def weather_files = Store::WeatherFile.where(property_id: property.id).reverse(:id).limit(LAST).all
      def sightings = Store::Sighting.live.where(property_id: property.id).reverse(:seen_on).limit(LAST).all
      def cleanings = Store::Cleaning.where(property_id: property.id).reverse(:done_on, :id).limit(3).all
      def walkable_patches = property.live_patches.limit(WALKED).all
      def patches_live = property.live_patches.count
      def put_away = Store::Property.put_away.order(:name).all
      def totals_of(other) = Store::Totals.new(other)

      # Patches on which a course or a trial can begin.
      def patches_to_begin = workable.select(:id, :code, :plant_key).limit(WALKED).all

      # Groups of this copy; what shares a shelf with the property at hand, itself among them.
      def groups = Store::Group.named.all
      def sharing = Store::Property.kept.here.order(:name).all

      # Patches to choose from where a record can be of any: those that want work first.
      def patches_to_record
        open = property.live_patches.wanting_work.unordered.select(:id, :code,
                                                                   :plant_key).order(:code).limit(WALKED).all
        rest = property.live_patches.unordered.exclude(id: open.map(&:id)).select(:id, :code, :plant_key).order(:code)
        open + rest.limit(WALKED - open.size).all
      end

      # Records that a phone sent.
      def sent_by(phone) = phone.held_dataset.count

      # Work days from today on.
      def days_ahead
        Store::WorkDay.live.where(property_id: property.id, held_on: today..).order(:held_on).limit(LAST).all
      end

      # What a link can show a guest: {kind and id => words}.
      def guests_may_see
        here = { property_id: property.id }
        sheets = Store::Report.where(here).reverse(:id).limit(LAST).select_map(:id)
        plans = Store::LandPlan.live.where(here).reverse(:version).limit(LAST).select_map(%i[id version])
        { "calendar" => "the calendar", **sheets.to_h { |id| ["sheet-#{id}", "sheet #{id}, for a specialist"] },
          **plans.to_h { |id, version| ["plan-#{id}", "management plan, version #{version}"] } }
      end

      # Links of guests that still open something; who may see the property at hand, by name; everybody, for the demo.
      def guest_links = Store::GuestLink.standing(today).where(property_id: property.id).newest.all
      def members_here = @members_here ||= Store::Members.new(property).accounts
      def everybody = Store::Account.there.order(:id).all

      # Permissions to work on the property at hand; the one that stands today; names of those who can give one.
      def permissions = Store::Permission.live.where(property_id: property.id).newest.limit(20).all
      def permitted = Store::Permission.on(property, today)

      def landowners
        @landowners ||= begin
          held = Store::Membership.live.where(property_id: property.id, role: "landowner")
          Store::Account.there.where(id: held.select(:account_id)).named.select_map(:name)
        end
      end

      # Bundles that wait to be looked over.
      def bundles_open = Store::BundleArrival.open

      # {key => name} of plants that have stood on the property at hand.
      def weeds_here
        keys = property.patches_dataset.live.unordered.exclude(plant_key: nil).distinct.select_map(:plant_key)
        keys.to_h { |key| [key, knowledge.plant(key).name] }.sort_by(&:last).to_h
      end

      # Where its borders put it, in words; nil where nobody knows.
      def whereabouts = Store::Whereabouts.said(property)

      # Of a patch.
      def plans_of(patch) = Store::PlantingPlan.live.where(patch_id: patch.id).order(:id).all
      def trials_of(patch) = Store::TrialRun.live.where(patch_id: patch.id).order(:id).all
      def quiet_look_at(patch) = Store::QuietLooks.new(patch.property, today).of(patch)
      def pictures_of(patch) = Store::Picture.every(patch)
      def picture_pairs_of(patch) = Store::Picture.pairs(patch)
      def last_picture_of(patch) = Store::Picture.last_of(patch)

      # Patches that are kept out of a work day.
      def kept_out_of(day) = Store::Patch.where(id: day.bans_kept).all
    end
  end
end
