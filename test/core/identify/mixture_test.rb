# frozen_string_literal: true

require "test_helper"
require "support/climates"
require "yaml"
require_relative "../../../bench/readings"

module Thistle
  # A plant on a day is a mixture of aspects: what must hold of it for any plant, climate and month, and how it names
  # what others wrote down.
  class MixtureTest < Minitest::Test
    I = Core::Identify
    LIBRARY = Core::Knowledge.shipped
    CHANCES = I::Chances.of(LIBRARY)
    MONTHS = (1..12).map { |month| Date.new(2026, month, 15) }.freeze
    CLEAR = 0.8

    # Chances of aspects, and of the answers in each, add up to one; none is ever nought for what may be seen.
    def test_chances_add_up
      %w[north south desert].product([MONTHS[0], MONTHS[5]]) do |place, date|
        LIBRARY.plants.each_value do |plant|
          mixture = I::Mixture.new(plant, Climates.site(place).calendar(plant), date)

          assert_in_delta 1.0, mixture.shares.values.sum, 1e-9, plant.key
          assert_operator mixture.standing, :>, 0
          LIBRARY.aspects.each_value do |aspect|
            assert_empty mixture.visible(aspect).reject { |_, chance| chance.positive? && chance <= 1 }
          end
        end
      end
      LIBRARY.characters.each_key do |key|
        [nil, *LIBRARY.aspects.keys].each do |aspect|
          sums = CHANCES.rows(key, aspect).values.transpose.map(&:sum).first(LIBRARY.plants.size)

          assert_operator sums.max, :<=, 1 + 1e-9, "#{key} #{aspect}" # less for a part that a plant does not have
        end
      end
    end

    # Whatever of a plant stands on a day, described in full, is named first, or is one of a group handled alike: of
    # seedlings and dead stems fewer than of grown plants.
    def test_a_plant_drawn_from_its_own_mixture_is_named
      walks = specimens(%w[north south tropics coast desert], 3)
      missed = walks.reject do |specimen, key|
        [specimen.plant, LIBRARY.group_of(specimen.plant)].any? { |one| named?(one, key) }
      end
      said = missed.map { |specimen, key| "#{specimen.plant.key} (#{specimen.aspect.key}) as #{key.top.plant.key}" }

      assert_operator missed.size, :<=, 0.04 * walks.size, said.join("\n")
      assert_operator missed.count { |specimen, _| specimen.aspect.key == "grown" }, :<=, 0.02 * walks.size
    end

    # One answer forgotten, or read as the state beside it, does not make another name of a clear one.
    def test_one_answer_more_or_less_keeps_the_name
      random = Random.new(4)
      clear = specimens(%w[north coast], 2).map(&:last).select { |key| key.top.probability >= CLEAR }
      turned = clear.select { |key| clearly_other?(key, without(key, key.observed.keys.sample(random:))) }

      assert_empty(turned.map { |key| key.top.plant.key })
      beside = clear.filter_map { |key| (other = misread(key, random)) && [key, other] }
      same = beside.count { |key, other| key.top.plant == other.top.plant }

      assert_operator beside.size, :>, 200
      assert_operator same, :>=, 0.95 * beside.size
    end

    # Specimens written from field knowledge, without sight of the library, and those of other regions, written before
    # their plants' files. How many stand first and among the first three; none settled wrongly.
    def test_specimens_that_others_wrote_down
      told = %w[specimens specimens_abroad].flat_map { |name| YAML.safe_load_file("#{ROOT}/test/fixtures/#{name}.yml") }
                                           .map { |row| [row, Readings.key(row)] }
      ranks = told.map { |row, key| Readings.rank(row, key) }
      wrong = told.select { |row, key| key.settlement.settled? && Readings.rank(row, key) > 1 }

      assert_empty(wrong.map { |row, _| row["id"] })
      assert_operator told.size, :>=, 300
      assert_operator ranks.count(1), :>=, 0.95 * ranks.size
      assert_operator ranks.count { |rank| rank <= 3 }, :>=, 0.99 * ranks.size
    end

    private

    # [[specimen, key of all that it shows]]: some of each plant, at places in turn, in months in which it stands.
    def specimens(places, each)
      random, sites = Random.new(9), places.to_h { |place| [place, Climates.site(place)] }
      LIBRARY.plants.values.each_with_index.flat_map do |plant, n|
        Array.new(each) do |time|
          site = sites.values[(n + time) % sites.size]
          date = MONTHS[((7 * n) + time) % 12]
          mixture = I::Mixture.new(plant, site.calendar(plant), date)
          next if mixture.standing < 0.5 # nobody meets it

          specimen = I::Specimen.new(mixture, LIBRARY.aspects, random)
          [specimen, described(specimen, site, date, random)]
        end
      end.compact
    end

    def named?(one, key) = one.is_a?(I::Group) ? one.include?(key.top.plant) : key.top.plant == one

    def described(specimen, site, date, random)
      region = specimen.plant.regions.values_at("invasive", "native").compact.flatten.first
      prior = (@priors ||= {})[[site, date, region]] ||= I::Prior.new(chances: CHANCES, site:, date:, region:)
      seen = LIBRARY.characters.values.select { |one| one.described?(specimen.plant) && prior.year_shows?(one.shows) }
      told = seen.to_h { |one| [one.key, specimen.answer(one, random)] }.compact
      I::Key.new(told, site:, date:, prior:)
    end

    def without(key, one) = again(key, key.observed.except(one))
    def again(key, seen) = I::Key.new(seen, site: key.site, date: key.date, prior: key.prior)

    def clearly_other?(key, other)
      other.top.plant != key.top.plant && other.top.probability >= CLEAR
    end

    # The same with one answer read as the state beside it; nil where none has any.
    def misread(key, random)
      near = key.observed.keys.select { |one| LIBRARY.characters[one].near(key.state(one)).any? }
      one = near.sample(random:) or return
      character = LIBRARY.characters[one]
      again(key, key.observed.merge(one => character.answer_in(character.near(key.state(one)).sample(random:))))
    end
  end
end
