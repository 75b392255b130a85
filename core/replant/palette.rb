# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Natives for a site, best first, with what speaks for and against each, and why the rest were turned down.
      # Weights are planning values (memory).
      class Palette
        Match = Value.define(:native, :score, :where, :taken, :fors, :againsts)
        Reason = Value.define(:text, :source)
        # What people may ask for: nothing above a view, nothing that seeds itself hard, what deer leave, nothing that
        # burns hot, only what grows by seed, what a nearby region lends.
        FILTERS = { "quiet" => "nothing that seeds itself or runs hard", "deer" => "deer leave it",
                    "fire" => "nothing that burns hot", "seed" => "can be sown",
                    "beside" => "a nearby region’s or climate’s too" }.freeze
        LENT = "at home in a nearby region or climate, not here: say why in the record"
        LIGHT, MOISTURE, JOB = 1.0, 1.0, 1.0
        SOIL, PH, HARD = 0.6, 0.4, 0.6
        MORE, WILD = 0.15, 0.08
        SMALL = 50.0 # m², on which what runs hard takes over
        NEAR_HOUSE = 30.0 # m, within which nothing that burns hot stands where fire comes

        attr_reader :sheet, :filters

        # filters: keys of FILTERS. Raises BadInput (field :filters).
        def initialize(sheet, filters: [], natives: Knowledge.shipped.palette.values)
          unknown = filters - FILTERS.keys
          raise BadInput.new("“#{unknown.first}” is no filter.", field: :filters) if unknown.any?

          @sheet, @filters, @natives = sheet, filters, natives
        end

        # [Match], best first; none while the sheet does not say enough.
        def matches
          @matches ||= judged.filter_map(&:first).sort_by { |match| [-match.score, match.native.name] }.freeze
        end

        # {why => how many}, of those that were turned down.
        def turned_down = @turned_down ||= judged.filter_map { |_, reason| reason }.tally.sort_by { |_, n| -n }.to_h

        # The Match of a native, or nil where it does not suit.
        def match(key) = (@by_key ||= matches.to_h { |one| [one.native.key, one] })[key]

        private

        def judged = @judged ||= @sheet.enough? ? @natives.map { |native| judge(native) } : []

        # [Match, nil] or [nil, why not].
        def judge(native)
          where = native.at(@sheet.place)
          against = out(native, where)
          against ? [nil, against] : [weigh(native, where), nil]
        end

        # Why it does not come into question, or nil.
        def out(native, where)
          return "invasive in this region" if where == :weed
          return "not at home here" unless where == :home || (where == :nearby && @filters.include?("beside"))
          return "another light" unless native.light.include?(@sheet[:light])
          return "other moisture" unless native.moisture.include?(@sheet[:moisture])

          unsafe(native) || filtered(native)
        end

        def unsafe(native)
          return "taller than the view allows" if @sheet[:view_cm] && native.height_cm > @sheet[:view_cm]
          return "harmed by salt" if @sheet[:salt] == "yes" && !native.salt?
          return "burns hot near a house" if native.burns? && @sheet[:fire] == "yes" && house_near?

          "drowns in floods of weeks" if @sheet[:flood] == "weeks" && !native.moisture.intersect?(%w[wet water])
        end

        # A house whose distance nobody knows may be near.
        def house_near? = @sheet[:house_m].nil? || @sheet[:house_m] <= NEAR_HOUSE

        def filtered(native)
          return "seeds itself or runs hard" if @filters.include?("quiet") && hard?(native)
          return "deer eat it, or nobody knows" if @filters.include?("deer") && native.deer != "leave"
          return "burns hot" if @filters.include?("fire") && native.burns?

          "cannot be sown" if @filters.include?("seed") && !native.sown?
        end

        def hard?(native) = native.self_seeds == "hard" || native.spreads == "runs_hard"

        def weigh(native, where)
          taken = native.jobs & @sheet.jobs
          pros, cons = fors(native, taken), againsts(native, where)
          score = (pros + cons).sum(&:first) + (MORE * (native.jobs - taken).size) + (WILD * native.wildlife.size)
          Match.new(native:, score: score.round(3), where:, taken:, fors: reasons(pros), againsts: reasons(cons))
        end

        def reasons(rows) = rows.map { |_, text, source| Reason.new(text:, source:) }.freeze

        # [[weight, words, source]]
        def fors(native, taken)
          rows = { light: ["takes #{Native::LIGHTS[@sheet[:light]]}", LIGHT],
                   moisture: ["#{Native::MOISTURES[@sheet[:moisture]]} ground", MOISTURE] }.map do |key, (words, worth)|
            [native.public_send(key).first == @sheet[key] ? worth : worth / 2, words]
          end
          taken.each { |job| rows << [JOB, Native::JOBS[job]] }
          rows << [SOIL, "grows on #{@sheet[:soil]}"] if native.soil.include?(@sheet[:soil])
          rows << [PH, "likes the soil’s pH"] if @sheet[:ph]&.between?(*native.ph)
          rows << [JOB, "deer leave it"] if @sheet[:deer] == "yes" && native.deer == "leave"
          rows << [JOB, "spreads by itself and closes the ground"] if closes?(native)
          rows.map { |row| [*row, native.source] }
        end

        def closes?(native)
          @sheet.jobs.include?("ground_cover") && native.spreads.match?(/\Aruns(_slowly)?\z/) && native.height_cm <= 60
        end

        def againsts(native, where)
          rows = [*idle(native), *soil(native), *manners(native), *dangers(native), *known(native)]
          rows.map { |row| [*row, native.source] } +
            (where == :nearby ? [[-JOB, LENT, "memory"]] : [])
        end

        def idle(native)
          @sheet.jobs.any? && !native.jobs.intersect?(@sheet.jobs) ? [[-JOB, "does none of the jobs"]] : []
        end

        def soil(native)
          rows = []
          soil, ph = @sheet[:soil], @sheet[:ph]
          rows << [-SOIL, "wants #{native.soil.join(" or ")}"] if soil && !native.soil.include?(soil)
          rows << [-2 * PH, "wants a pH of #{native.ph.join(" to ")}"] if ph && !ph.between?(*native.ph)
          if @sheet[:flood] == "spring" && !native.moisture.intersect?(%w[wet water])
            rows << [-SOIL, "does not like floods"]
          end
          rows
        end

        def manners(native)
          rows = []
          small = @sheet.m2 && @sheet.m2 < SMALL
          if native.spreads == "runs_hard"
            rows << [small ? -2 * JOB : -HARD, "runs hard#{": too small a place" if small}"]
          end
          rows << [-HARD, "tall for a front yard"] if @sheet[:seen] == "neighbours" && native.layer == "tall"
          if native.self_seeds == "hard"
            beside = @sheet[:remnant] == "yes"
            rows << [beside ? -2 * JOB : -HARD, "seeds itself hard#{": not beside good native ground" if beside}"]
          end
          rows
        end

        def dangers(native)
          rows = []
          browsed = @sheet[:deer] == "yes"
          rows << [-JOB, "deer eat it: cage or fence"] if browsed && native.deer == "eat"
          rows << [-MORE, "nobody here knows whether deer eat it"] if browsed && native.deer.nil?
          rows << [-MORE, "burns hot: does fire come here?"] if native.burns? && @sheet[:fire].nil?
          rows << [-JOB, "roots over buried lines"] if @sheet[:lines] == "yes" && %w[tree shrub].include?(native.form)
          rows
        end

        def known(native)
          rows = native.looks_like.map do |key|
            [-MORE, "taken for #{Knowledge.shipped.plant(key).in_text} and weeded: label it"]
          end
          rows << [0, native.caution.delete_suffix(".")] if native.caution
          rows << [0, "sexes stand apart: five or more"] if native.sexes_apart?
          rows
        end
      end
    end
  end
end
