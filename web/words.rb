# frozen_string_literal: true

module Thistle
  module Web
    # How things are said in every room: a mixin of pages and of each room's own words, and functions for whatever else
    # says something.
    module Words
      extend self

      STATES = { "reported" => "reported, not settled", "standing" => "standing", "hit" => "treated, not yet checked",
                 "regrowing" => "regrowing", "quiet" => "quiet", "closed" => "closed" }.freeze
      STATE_HUES = { "reported" => "stone", "standing" => "clay", "hit" => "ochre", "regrowing" => "clay",
                     "quiet" => "moss", "closed" => "moss" }.freeze
      # A state's name where it stands alone.
      def state_word(state) = state == "hit" ? "treated" : state

      SIZES = { "seedling" => "seedling", "pencil" => "pencil", "thumb" => "thumb", "wrist" => "wrist",
                "wider" => "wider" }.freeze

      # What a plant's size is asked by, and its answers: stems, or the stage of its life; stems where it has no name.
      def sizes_asked(plant)
        by_stems = plant.nil? || Core::Removal.sizes_of(plant) == Core::Removal::SIZES
        by_stems ? ["Stems mostly", SIZES] : ["Plants mostly", Core::Removal::AGES]
      end

      # Where one looks, in the order of effort.
      GROUPS = { "afar" => "From where you stand", "leaf" => "Leaf", "stem" => "Stem and bark",
                 "grass" => "Grass parts", "flower" => "Flower",
                 "fruit" => "Fruit and seed", "water" => "In the water", "root" => "Under the ground" }.freeze
      TOUCHES = { "feel" => "touching", "crush" => "crushing", "break" => "breaking", "cut" => "cutting",
                  "dig" => "digging" }.freeze
      # Long work, by what it is.
      JOBS = { "arrival" => "Import of a survey file", "plan" => "A season plan", "land_plan" => "A management plan",
               "settle" => "Slope, water and zones of each patch", "closing" => "Patches that can close" }.freeze
      # Where a direction (degrees from north) points, in eighths.
      def compass(degrees) = Core::Survey::Elevation::POINTS[(degrees / 45.0).round % 8]

      # How far long work is: "waits: 2 before it", "120 of 500".
      def turn(job)
        return "waits: #{job.ahead} before it" if job.waiting?

        job.total.positive? ? "#{job.done} of #{job.total}" : "since #{job.seconds.round} s"
      end

      # "crushing or breaking": what the withheld characters would have meant.
      def touches(characters) = TOUCHES.slice(*characters.map(&:touch)).values.join(" or ")

      # What the answers to a look would mean, those that point somewhere.
      def telling(look) = look.outcomes.select { |outcome| outcome.probability >= 0.1 }

      # A place as the maps of a property's country have it: "NY 2885 1218"; nil where its grid does not reach.
      def grid_place(property, longitude, latitude)
        Core::Survey::Position.write(longitude, latitude, property.habits.grid)
      end

      # A date in the order of the property at hand.
      def day(date) = Core::Dates.day(date)
      def short_day(date) = Core::Dates.short(date)
      def full_day(date) = Core::Dates.full(date)
      def week_day(date) = Core::Dates.of_week(date)
      def short_week_day(date) = Core::Dates.short_of_week(date)

      # "5:57" or "5:57 am" from hours since midnight.
      def clock_time(hours, units)
        hour, minute = (hours * 60).round.divmod(60)
        return format("%d:%02d", hour, minute) unless units.us?

        "#{((hour - 1) % 12) + 1}:#{format("%02d", minute)} #{hour % 24 < 12 ? "am" : "pm"}"
      end

      # A date as people say it near today: "Thursday", "12 May", "12 May 2028".
      def near(date, today)
        days = (date - today).to_i
        return "today" if days.zero?
        return "tomorrow" if days == 1
        return date.strftime("%A") if days.between?(2, 6)

        date.year == today.year ? day(date) : full_day(date)
      end

      def ago(date, today)
        days = (today - date).to_i
        return "on #{date.strftime("%A")}" if days.between?(2, 6)

        { 0 => "today", 1 => "yesterday" }.fetch(days) { "on #{day(date)}" }
      end

      # "38.00045° N, 91.39943° W"
      def position(lat, lon)
        [[lat, "N", "S"], [lon, "E", "W"]].map do |degrees, over, under|
          "#{format("%.5f", degrees.abs)}° #{degrees.negative? ? under : over}"
        end.join(", ")
      end

      def count(number, one, many = "#{one}s") = "#{number} #{number == 1 ? one : many}"

      # What lived at a check: "34 resprouts, 6 missed", "about 150 seedlings", "nothing alive".
      def found_said(check)
        seedlings = "#{"about " if check.frame_count}#{count(check.young, "seedling")}" if check.young.positive?
        found = [(count(check.resprouts, "resprout") if check.resprouts.positive?),
                 ("#{check.missed} missed" if check.missed.positive?),
                 (count(check.suckers, "sucker") if check.suckers.positive?),
                 check.seedlings_seen == "some" ? "some seedlings" : seedlings].compact
        found.any? ? found.join(", ") : "nothing alive"
      end

      # A country within a sentence: "the United Kingdom", "Ireland".
      def in_country(name) = name.match?(/\A(?:United|Netherlands|Isle)/) ? "the #{name}" : name

      # Words as a sentence of their own.
      def sentence(words) = "#{words[0].upcase}#{words[1..]}#{"." unless words.end_with?(".", "?")}"

      # "a, b and c"
      def listed(names) = names.size > 1 ? "#{names[0..-2].join(", ")} and #{names.last}" : names.join

      def hours(value)
        return value && "under ¼" if value.nil? || value < 0.25

        value.round(value < 10 ? 1 : 0).to_s.delete_suffix(".0")
      end

      def percent(share) = share >= 0.995 ? "> 99 %" : "#{(share * 100).round} %"

      # What a fact rests on, as a small mark of its own shape; the words on hover and tap, and for screen readers.
      def standing(key)
        Core::Knowledge.shipped.source(key).then { |source| standing_mark(source.mark, source.label, source.title) }
      end

      # The marks with their words, once a page.
      def legend
        Core::Knowledge.shipped.sources.values.uniq(&:mark)
                       .map { |source| "#{standing_mark(source.mark, nil, source.label)} #{h source.label}" }
      end

      def standing_mark(kind, words, title)
        said = words && %(<span class="visually-hidden">#{h words}</span>)
        %(<span class="standing #{kind}" title="#{h title}"#{%( data-word="#{h words}") if words}>#{said}</span>)
      end
      private :standing_mark

      def patch_title(patch) = "#{plant_said(patch)}, #{patch.code}"

      # What stands on a patch: its plant, or the group that it is one of.
      def plant_said(patch) = name_said(patch.plant_key, patch.group&.key)

      # The same of keys.
      def name_said(plant_key, group_key = nil)
        library = Core::Knowledge.shipped
        return library.groups.fetch(group_key).short if group_key

        plant_key ? library.plant(plant_key).name : "Not named yet"
      end

      # The same for a heading, where the code must not break at its hyphen.
      def patch_heading(code, plant_key, group_key = nil)
        %(#{h name_said(plant_key, group_key)}, <span class="code">#{h code}</span>)
      end

      # What a search found, its words marked.
      def marked(words)
        first, last = Store::Texts::MARK
        h(words).gsub(first, "<mark>").gsub(last, "</mark>")
      end

      def h(text) = Rack::Utils.escape_html(text.to_s)
      def number(value) = value.nil? ? "" : value.to_s.delete_suffix(".0")
    end
  end
end
