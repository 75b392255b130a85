# frozen_string_literal: true

module Thistle
  module Web
    module Season
      module Forms
        # What someone saw of the year: a mark, a plant's phase, the feel of the soil. What can hardly be asks to be
        # said twice.
        class Sighting < Form
          FAR = 45 # days outside the usual spread that want a second word

          class Fields < Form::Contract
            params do
              required(:kind).filled(:string, included_in?: Store::Sighting::KINDS)
              required(:said).filled(:string, max_size?: 40)
              required(:seen_on).filled(:date)
              optional(:plant_key).filled(:string)
              optional(:began).filled(:bool)
              optional(:sure).filled(:bool)
              optional(:person).filled(:string, max_size?: 120)
            end
            rule(:seen_on).validate(:day_of_record)
          end

          # The stored sighting, or nil with errors.
          def store(property, site)
            return unless ok?

            look = { "anchor" => :mark, "phase" => :phase, "soil" => :soil }.fetch(values[:kind])
            message = send(look, site)
            return failed(:seen_on, message) && nil if message

            Store::Sighting.record(property, **values.except(:sure))
          end

          # Did it only want a second word?
          def doubtful? = @doubtful

          private

          def mark(site)
            year = site.year(values[:seen_on])
            anchor = year.anchor(values[:said].to_sym) or return "is of a mark that this climate does not have"
            return "is in another year than this one" unless year.cover?(site.today)

            order(site, year) || far(values[:seen_on], anchor.early, anchor.late, anchor.label)
          end

          # Against what else was seen this year.
          def order(site, year)
            kinds = Core::Knowledge.shipped.anchors
            site.seen.anchors.select { |mark| year.cover?(mark.on) }.each do |mark|
              other = kinds.fetch(mark.key.to_s)
              if earlier?(kinds, mark.key.to_s, values[:said]) && values[:seen_on] < mark.on
                return "comes before #{other.label}, which was seen on #{Web::Words.day(mark.on)}"
              elsif earlier?(kinds, values[:said], mark.key.to_s) && values[:seen_on] > mark.on
                return "comes after #{other.label}, which was seen on #{Web::Words.day(mark.on)}"
              end
            end
            nil
          end

          # Does one mark come before the other in every year?
          def earlier?(kinds, first, second)
            before = kinds.fetch(second).after or return false
            before == first || earlier?(kinds, first, before)
          end

          def phase(site)
            plant = Core::Knowledge.shipped.plants[values[:plant_key]]
            return "is of a plant that the library does not know" unless plant

            spans = Core::Season::Phenology.new(plant, site, sightings: []).phenophases(site.year(values[:seen_on]))
                                           .select { |span| span.phase == values[:said].to_sym }
            return "is of a phase that #{plant.name} does not have here" if spans.empty?

            near = spans.min_by { |span| [span.from - values[:seen_on], values[:seen_on] - span.to].max }
            far(values[:seen_on], near.from, near.to, Core::Knowledge.shipped.phases.fetch(near.phase)["label"])
          end

          def soil(_site)
            "is of soil that is no class" unless Core::Season::Soil::CLASSES.include?(values[:said].to_sym)
          end

          def far(date, early, late, what)
            days = [(early - date).to_i, (date - late).to_i].max
            return if days <= FAR || values[:sure]

            @doubtful = true
            "is #{days} days outside the usual dates of #{what}. If it is right, send it once more"
          end
        end
      end
    end
  end
end
