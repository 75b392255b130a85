# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What a person says of a patch before asking what to do, in parts:
      # - plant: `settled`: is the name certain? `belongs`: what it is in this region (Plant#belongs), nil for what its
      #   file's status says; `kills`: what methods killed of it by the group's own records, {method => {low, likely,
      #   high percent, source, records, stems}}.
      # - stand: plants and stems are two numbers: a shrub of forty stems is one plant; either is nil where nobody
      #   counted it. `seedlings`: and other young ones beside them, nil where nobody counted; `sizes`: stems counted by
      #   size, {size => number}, nil where they were not; `few`: do at most FEW plants stand here? nil where nobody
      #   counted.
      # - ground: `zones` that it touches or stands too near to, [Survey::Nearby], nil where none is mapped; `footing`:
      #   "soil", "rock" or "paving" under the roots, nil for soil; `new_planting`: young plantings? `fire_adapted`: has
      #   the vegetation here always burned? `clean_site`: never sprayed; `aim`: what it is for (knowledge/aims.yml),
      #   nil where nobody said.
      # - crew: people at hand; `tools`: keys of kit.yml, nil for all; `licensed`; `full_cover`: full cover and training
      #   against sap; `burn_permit`: a permit and a trained crew; `rates`: what an hour and a litre cost here
      #   (Effort::Rates), nil for planning values.
      # - school: `stance` on herbicide; `schools`: {question => option} (School); `book`: the RuleBook that counts
      #   here; `purpose`: :kill or :hold, nil for the aim's own.
      # - shelf: `labels`: what products' labels say of weather, {kind of work => {limit => value}}
      #   (Season::Limits#under); `aquatic_label`: is a product labelled for water at hand? One answer, or one for each
      #   kind of work, {key of Season::Limits => true or false}, as the products in use are.
      # - day: soil and stage are nil unless pinned; then they hold for `date` and the calendar goes on from them.
      Facts = Value.of(plant: %i[plant settled belongs new_here reported kills],
                       stand: %i[size sizes plants stems seedlings few cover area_m2 freed_on],
                       ground: %i[water_m slope natives_near zones footing new_planting fire_adapted clean_site aim],
                       crew: %i[crew tools licensed full_cover burn_permit rates],
                       school: %i[stance schools book purpose],
                       shelf: %i[labels aquatic_label],
                       day: %i[date stage soil])

      # What follows from the facts alone, and the words for them.
      class Facts
        # What the rules see of them as it stands, whatever the day.
        CARRIED = (members - PARTS[:day] - %i[sizes plants stems seedlings book rates kills]).freeze
        NEAR_WATER_M = 10.0 # planning value: closer counts as at the water (memory); the label may ask for more
        FEW = 3
        FREED_DAYS = 365 # for which a freed tree needs no freeing
        STANCES = { "none" => "none", "stem" => "stem only", "any" => "any use on the label" }.freeze
        SLOPES = %w[flat slope steep].freeze
        PURPOSES = { "kill" => "kill it", "hold" => "hold it down this season" }.freeze
        FOOTINGS = %w[soil rock paving].freeze

        # Seedlings and pencil-thick stems of woody plants bear no seed (memory), unless someone saw it.
        def bears_seed?
          %i[green_seed ripe_seed].include?(stage) || !(plant.woody? && %w[seedling pencil].include?(size))
        end

        # Is the plant to be held down, not killed: as someone says, else as the ground's aim asks?
        def holding? = self.class.holding?(purpose, aim)

        # The same of a purpose (:kill, :hold or nil) and an aim's key or nil. Raises KeyError for an aim that is
        # none.
        def self.holding?(purpose, aim)
          purpose ? purpose == :hold : !aim.nil? && Knowledge.shipped.aims.fetch(aim).holds?
        end

        # At most FEW of them? By the plants, else by the stems, which are as many or more; nil where neither was
        # counted.
        def self.few?(plants, stems) = (plants || stems)&.then { |count| count <= FEW }

        # Share likely killed, percent, {low, likely, high, source}: by the group's own records, else the handbook's.
        def kill(removal) = kills&.[](removal.key) || removal.kill(plant)

        def rules = book || RuleBook::SHIPPED
        def school(question) = (schools || School.defaults).fetch(question)

        # Is a product labelled for water at hand for every kind of work?
        def for_water? = aquatic_label.is_a?(Hash) ? aquatic_label.values.all? : aquatic_label

        # Is the seed bank stirred and flushed, rather than left alone?
        def stirs?
          { "stir" => true, "leave" => false }.fetch(school(:seed_bank)) { slope == "flat" }
        end

        # The plant's calendar at a site, moved by the pinned stage.
        def calendar(site)
          plain = site.calendar(plant)
          stage ? plain.seen(stage, date) : plain
        end
      end
    end
  end
end
