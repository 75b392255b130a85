# frozen_string_literal: true

require "support/web"

module Thistle
  # Two groups in one copy: neither sees the other's shelf, tools, seed or people.
  class GroupsTest < RackTest
    def setup
      super
      @first = Store::Property.first
      @town = Store::Group.called("Town of Mill Bend")
      @other = Store::Property.create(**@first.values.except(:id, :prefix, :name, :group_id, :calendar_token),
                                      prefix: "ZZ", name: "Town wood")
      @town.take(@other)
    end

    def look_as(name)
      get "/glossary"
      send_form(:post, "/account/look-as", account: Store::Account.first(name:).id)
    end

    def in_town(&) = Store::Acting.for_group(@town.id, &)
    def in_first(&) = Store::Acting.for_group(Store::Group::FIRST, &)

    def test_what_a_group_has_is_its_own
      models = [Store::Person, Store::Product, Store::KitItem, Store::SeedOnHand, Store::Calibration]
      models.each { |model| in_town { assert_empty model.here.all, model.name } }
      made = in_town { Store::Person.create(name: "S. Alder", roles: "[]", training: "[]", cannot: "[]") }

      assert_equal [@town.id, [made.id]], [made.group_id, in_town { Store::Person.here.select_map(:id) }]
      refute_includes in_first { Store::Person.here.select_map(:id) }, made.id
      assert_equal "S. Alder", Store::Person.names[made.id], "a record names whomever it names"
    end

    def test_an_older_name_is_somebody_of_each_group
      town = in_town { Store::Person.create(name: "S. Alder", roles: "[]", training: "[]", cannot: "[]") }
      people = [Store::Person.first, town].each { |one| one.match("Sam") }
      groups = [Store::Group::FIRST, @town.id]

      assert_equal people.map(&:id), groups.map { |id| Store::Person.by_name(id)["sam"] }
    end

    def test_records_of_a_property_that_moved_can_still_be_corrected
      here = Store::Treatment.exclude(people_ids: "[]").first
      ids = JSON.parse(here.people_ids)

      refute in_town { Store::Person.at_hand?(ids) }
      @town.take(here.patch.property)

      assert in_town { Store::Person.at_hand?(ids) }
      refute in_town { Store::Person.at_hand?([Store::Person.max(:id) + 5]) }
    end

    def test_an_account_is_one_person_of_each_group
      account = Store::Account.create(name: "A", email: "a@a.example", status_id: 2)
      town = in_town { Store::Person.create(name: "S. Alder", roles: "[]", training: "[]", cannot: "[]") }
      in_town { account.is(town) }
      in_first { account.is(Store::Person.first) }

      assert_equal [town.id, Store::Person.first.id].sort, account.person_ids.sort
      in_first { account.is(nil) }

      assert_equal [town.id], account.person_ids
    end

    # A steward of the town's wood reads neither names nor products of the first group, in pages, JSON or files.
    def test_a_steward_of_the_town_sees_nothing_of_the_first_group
      account = Store::Account.create(name: "S. Alder", email: "s@town.example", status_id: 2)
      Store::Membership.give(account, @other, "steward")
      look_as("S. Alder")
      ids = { "/work/people" => Store::Person, "/mix/shelf" => Store::Product, "/work/kit" => Store::KitItem }
      ids.each { |path, model| assert_equal 404, get("#{path}/#{model.first.id}").status, path }
      words = Store::Person.select_map(:name) + Store::Product.select_map(:name) + Store::SeedOnHand.select_map(:name)
      told = %w[/work /work/people /mix /mix/shelf /work/kit /replant/seed /find?q=oakes /find?q=glyphosate /recheck
                /work/people.json /mix/shelf.json /records /records/list/people /records/list/products].to_h do |path|
        get path
        said = path.end_with?(".json") ? last_response.body : last_response.body[/<main.*/m]
        [path, words.compact.select { |one| said.include?(one) }]
      end

      assert_empty told.reject { |_, found| found.empty? }
    end

    # What a bundle of the town's wood takes along is the town's.
    def test_a_bundle_takes_a_groups_own
      in_town { Store::Person.create(name: "S. Alder", roles: "[]", training: "[]", cannot: "[]") }
      Dir.mktmpdir do |folder|
        made = Store::Bundle::Writer.new([@other]).write("#{folder}/b.zip", made_on: "2026-05-12")

        assert_equal [1, 0, 0], made[:tables].values_at("people", "products", "label_versions").map { |one| one[:rows] }
      end
    end

    # The keeper puts a property into a group by its name; a new name begins one.
    def test_the_keeper_says_which_group_it_is
      send_form(:post, "/members/group", name: "")

      assert_equal 422, last_response.status
      send_form(:post, "/members/group", name: "Quillback trust")
      made = Store::Group.first(name: "Quillback trust")

      assert_equal [made.id, 303], [@first.refresh.group_id, last_response.status]
      get "/members"

      assert_said "Quillback trust"
      assert_equal [], json("/work/people.json")
    end
  end
end
