# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # A property's patches as a list: those in view, those that the words name, those in some states; a page at a
      # time, the states that want work first.
      class PatchList
        PAGE = 60
        ORDER = %w[standing regrowing reported hit quiet closed].freeze
        CODE = [Sequel.function(:length, :code), :code].freeze

        attr_reader :words, :page

        def initialize(property, params, states: ORDER)
          @property, @states = property, ORDER & states
          @box, @words = Store::InView.box(params["bbox"]), params["q"].to_s.strip
          @page = [Whole.read(params["page"]), 1_000_000].min
        end

        def total = counts.values.sum
        def before = page.positive? ? page - 1 : nil
        def after = total > (page + 1) * PAGE ? page + 1 : nil
        def all = @all ||= @property.live_patches.count
        def bbox = @box&.join(",")

        # A state after the other through its index, so that the rest is never sorted.
        def patches
          @patches ||= begin
            skip = page * PAGE
            @states.each_with_object([]) do |state, found|
              here = counts.fetch(state, 0)
              if skip < here && found.size < PAGE
                found.concat(read(dataset.where(state:).order(*CODE).limit(PAGE - found.size, skip)))
              end
              skip = [skip - here, 0].max
            end
          end
        end

        private

        # With what is asked of each row.
        def read(rows)
          rows.eager(:treatments).all.each { |patch| patch.associations[:property] = @property }
        end

        # {state => patches}
        def counts = @counts ||= dataset.where(state: @states).group_and_count(:state).as_hash(:state, :count)

        def dataset
          found = @property.live_patches.unordered
          found = found.within(@box) if @box
          words.empty? ? found : found.where(named(found))
        end

        def named(found)
          state = ORDER.find { |one| Words.state_word(one).casecmp?(words) }
          Sequel.ilike(:code, "%#{found.escape_like(words)}%") | { state: state || words } |
            { plant_key: Store::PlantNames.find(words) }
        end
      end
    end
  end
end
