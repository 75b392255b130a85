# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Forms
        # A work day as it is asked for: when, where, who comes, with what.
        class WorkDay < Form
          CLOCK = Treatment::CLOCK
          KIT = Core::Knowledge.shipped.kit
          MOST = 60 # people

          class Fields < Form::Contract
            params do
              required(:held_on).filled(:date)
              required(:starts_at).filled(:string, format?: CLOCK)
              required(:ends_at).filled(:string, format?: CLOCK)
              optional(:meet).filled(:string, max_size?: 200)
              optional(:help).filled(:string, max_size?: 400)
              optional(:seats).filled(:integer, gteq?: 0, lteq?: 500)
              optional(:hands).filled(:integer, gteq?: 0, lteq?: MOST)
              optional(:who).filled(:string, max_size?: 2000)
              KIT.each_key { |key| optional(:"have_#{key}").filled(:integer, gteq?: 0, lteq?: 500) }
              %i[felt wbgt].each { |name| optional(name).filled(:float, gteq?: -60, lteq?: 140) }
              optional(:drink).filled(:float, gt?: 0, lteq?: 5000)
              optional(:note).filled(:string, max_size?: 2000)
              optional(:lock_version).filled(:integer)
            end
            rule(:held_on) do
              key.failure("is past: record the work on its patches") if value < today
              key.failure("is more than two years away") if value > today + 731
            end
            rule(:starts_at, :ends_at) do
              key(:ends_at).failure("is not after the beginning") if values[:ends_at] <= values[:starts_at]
            end
            rule(:who, :hands) do
              ids = values[:who] ? Treatment.ids(values[:who]) : []
              key(:who).failure("are not all on the list") if ids.nil?
              count = ids.to_a.size + values[:hands].to_i
              key(:hands).failure("or someone of the list: nobody comes") if count.zero?
              key(:hands).failure("make more than #{MOST} people") if count > MOST
            end
          end

          def self.of(day, units, today)
            known = day.values.slice(:held_on, :starts_at, :ends_at, :meet, :help, :seats, :hands, :note, :lock_version)
            known.merge!(felt: units.from_celsius(day.felt_c)&.round(1), wbgt: units.from_celsius(day.wbgt_c)&.round(1),
                         drink: units.from_si(:volume, day.drink_l_h&.*(1000))&.round(1))
            known[:who] = JSON.parse(day.people_ids).join(",")
            day.tools_kept.each { |key, count| known[:"have_#{key}"] = count }
            new(typed(known), units:, today:)
          end

          # Boxes that were ticked are one answer.
          def initialize(params, **context)
            ticked = params["who"]
            params = params.to_h.merge("who" => ticked.grep(String).reject(&:empty?).join(",")) if ticked.is_a?(Array)
            super
          end

          # The stored work day, new or changed, or nil with errors.
          def store(property, today, day = Store::WorkDay.new)
            settle_drink if ok?
            settle_light(property, today) if ok?
            return unless ok?

            day.values[:lock_version] = values[:lock_version] if values[:lock_version] && !day.new?
            day.set(property_id: property.id, **columns, answer: nil)
            day.save
          rescue Sequel::NoExistingObject
            failed(:base, "Someone else changed this day meanwhile: reload, and enter it again.") && nil
          end

          private

          def columns
            plain = %i[held_on starts_at ends_at meet help seats note].to_h { |name| [name, values[name]] }
            tools = KIT.keys.to_h { |key| [key, values[:"have_#{key}"]] }.compact
            { **plain, **bodies, hands: values[:hands].to_i, tools: JSON.generate(tools),
                                 people_ids: JSON.generate(values[:who] ? Treatment.ids(values[:who]) : []) }
          end

          def bodies
            { felt_c: units.to_celsius(values[:felt]), wbgt_c: units.to_celsius(values[:wbgt]),
              drink_l_h: si(:drink, :volume)&.fdiv(1000) }
          end

          def settle_drink
            most = Core::Work::Bodies::MOST * 1000
            return unless si(:drink, :volume).to_f > most

            errors[:drink] = "is more than anybody may drink in an hour: #{units.volume(most)}"
          end

          def settle_light(property, today)
            site = property.site(today)
            return if Store::WorkDay.new.set(columns.slice(:held_on, :starts_at, :ends_at)).blocks(site).any?

            times = site.sun(values[:held_on]).compact.map { |hours| Words.clock_time(hours, units) }
            errors[:starts_at] = "is outside daylight: the sun is up from #{times.join(" to ")}"
          end
        end
      end
    end
  end
end
