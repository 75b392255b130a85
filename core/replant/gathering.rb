# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # When seed of a native is ripe here, how much of it may be taken, how it is dried and kept. By its phases where
      # the library has them, else by its bloom and its form.
      class Gathering
        # from, to: of ripe seed, on a day of this year or the next; source; divide: [from, to] for divisions, or nil.
        Window = Value.define(:native, :from, :to, :source, :keeping, :open)
        WEEKS = { "herb" => 5, "grass" => 6, "sedge" => 5, "shrub" => 11, "tree" => 14, "vine" => 11,
                  "aquatic" => 7 }.freeze # from the middle of bloom until seed is ripe (memory)
        LASTS = 4 # weeks that it hangs (memory)
        SHARE = 0.1 # of a stand's seed that may be taken in a year (common practice)
        LEAST = 30 # plants of a stand below which none is taken (common practice)

        # site: a Season::Site; latitude for bloom across the equator.
        def initialize(site)
          @site = site
        end

        # The next Window of a native; nil where nothing ripens that is sown.
        def window(native)
          return unless native.stock.include?("seed")

          by_phase(native) || by_bloom(native)
        end

        # Grams at most of a stand of so many plants with so many seeds on each. Raises BadInput (field :plants).
        def self.most_g(native, plants:, seeds_each:)
          unless plants.positive? && seeds_each.positive?
            raise BadInput.new("Plants and seeds are above 0.", field: :plants)
          end

          plants < LEAST || native.seeds_per_g.nil? ? 0.0 : SHARE * plants * seeds_each / native.seeds_per_g
        end

        # How it is dried and kept: a key of words.
        def self.keeping(native)
          case native.germination["need"]
          when "sow_fresh", "double_dormancy" then :moist
          when "after_ripen" then :rest
          else native.moisture.first == "water" ? :wet : :dry
          end
        end

        private

        def by_phase(native)
          plant = Knowledge.shipped.plants[native.key]
          return unless plant&.phase?(:ripe_seed)

          spans = [@site.today, @site.today >> 12].flat_map { |date| @site.calendar(plant).spans(@site.year(date)) }
          span = spans.select { |one| one.phase == :ripe_seed && one.to >= @site.today }.min_by(&:from)
          span && made(native, span.from, span.to, "memory")
        end

        def by_bloom(native)
          months = native.blooms(@site.latitude)
          return if months.empty?

          middle = months[months.size / 2]
          [@site.today.year - 1, @site.today.year, @site.today.year + 1].each do |year|
            from = Date.new(year, middle, 15) + (7 * WEEKS.fetch(native.form, 6))
            to = from + (7 * LASTS)
            return made(native, from, to, "memory") if to >= @site.today
          end
          nil
        end

        def made(native, from, last, source)
          Window.new(native:, from:, to: last, source:, keeping: self.class.keeping(native),
                     open: @site.today.between?(from, last))
        end
      end
    end
  end
end
