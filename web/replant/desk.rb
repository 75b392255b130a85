# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # Reads the replant bench: what is said of the ground, the filters and what was ticked, from the address over the
      # record.
      class Desk
        UNKNOWN = "?" # what is sent for a fact that is not known
        SHOWN = 24 # natives in the list before someone asks for all
        LENGTHS = { house_m: 1, view_cm: 100 }.freeze # facts typed in the reader's units of length, of a metre

        attr_reader :patch, :units, :errors

        def initialize(params, patch, property, today)
          @params, @patch, @property, @today = params, patch, property, today
          @units = property.measures
          @errors = {}
        end

        def site = @property.site(@today)
        def region = @property.region
        def sowing = @sowing ||= Core::Replant::Sowing.new(site)

        # What was said in the address, as it was typed: {fact => text}. What only stands as the page showed it (`was`)
        # nobody said.
        def typed
          @typed ||= hash("s").slice(*Core::Replant::SiteSheet::CHOICES.keys.map(&:to_s))
                              .reject { |key, text| was[key] == text }
        end

        # Facts that the reader says are not known, whatever anybody kept.
        def cleared = typed.select { |_, text| text == UNKNOWN }.keys.map(&:to_sym)

        # Values that the page shows on another word than the reader's, as one query.
        def shown_as
          keys = Core::Replant::SiteSheet::CHOICES.keys.reject { |key| said.key?(key) || cleared.include?(key) }
          Rack::Utils.build_query(keys.to_h { |key| [key, key == :jobs ? sheet.jobs.join(" ") : as_typed(key)] })
        end

        # Keeps what is said now for the patch, over what was kept before.
        def keep = Store::SiteSaid.keep(@patch, Store::SiteSaid.of(@patch).merge(said).except(*cleared))

        # The sheet; what cannot be said is left out, with its complaint in `errors`.
        def sheet
          @sheet ||= begin
            facts = said
            Store::SiteGround.new(@property, @patch, @today, said: facts, cleared:).sheet
          rescue Core::BadInput => e
            raise unless facts.key?(e.field)

            @errors[e.field] = e.message
            @dropped = [*@dropped, e.field]
            retry
          end
        end

        # Facts said in the address, read: {fact => value}.
        def said
          facts = typed.reject { |_, text| text == UNKNOWN }
          facts = facts.to_h { |key, text| [key.to_sym, read(key.to_sym, text)] }.compact
          facts[:jobs] = jobs if jobs
          facts.except(*@dropped)
        end

        # Does the address ask about no ground yet, on a property whose natives are known?
        def fresh? = @patch.nil? && region && typed.empty? && filters.empty? && !sheet.enough?

        def filters = list("f") & Core::Replant::Palette::FILTERS.keys
        def palette = @palette ||= Core::Replant::Palette.new(sheet, filters:)

        # Those shown first, with whatever was ticked.
        def shown
          return palette.matches if all?

          palette.matches.first(SHOWN) | palette.matches.select { |match| ticked.include?(match.native.key) }
        end

        def all? = @params["all"] == "1"
        def ticked = list("take")

        # A value of the sheet as a person types it, in the reader's units.
        def as_typed(key)
          return typed[key.to_s] if typed.key?(key.to_s)

          value = sheet[key]
          return UNKNOWN if value.nil? && Core::Replant::SiteSheet::CHOICES[key]
          return value.to_s.delete_suffix(".0") unless LENGTHS[key] && value

          units.from_si(:length, value / LENGTHS[key].to_f).round(1).to_s.delete_suffix(".0")
        end

        # Months of bloom here, of a native.
        def blooms(native) = native.blooms(@property.latitude)

        # The state of the bench as a query, with changes.
        def query(changes = {})
          state = { "patch" => @patch&.id&.to_s, "s" => typed, "jobs" => jobs, "f" => filters, "take" => ticked,
                    "all" => all? ? "1" : nil }
          Rack::Utils.build_nested_query(state.merge(changes).reject { |_, v| v.nil? || v.empty? })
        end

        private

        def hash(name)
          @params[name].is_a?(Hash) ? @params[name].select { |_, v| v.is_a?(String) && !v.strip.empty? } : {}
        end

        def list(name) = Array(@params[name]).grep(String)

        # Ticked jobs; nil where the address names none. An unticked list is sent as one empty word.
        def jobs
          return unless @params.key?("jobs")

          ticked = Array(@params["jobs"]) & Core::Replant::Native::JOBS.keys
          ticked unless was["jobs"]&.split&.sort == ticked.sort
        end

        # What the page showed on another word than the reader's when it was sent: {fact => text}.
        def was
          @was ||= begin
            text = @params["was"]
            text.is_a?(String) ? Rack::Utils.parse_query(text).select { |_, value| value.is_a?(String) } : {}
          rescue ArgumentError, Rack::QueryParser::QueryLimitError
            {}
          end
        end

        def read(key, text)
          return text if Core::Replant::SiteSheet::CHOICES[key]

          number = Core::Decimal.read(text, comma: :decimal)
          number ? in_si(key, number) : text
        end

        def in_si(key, number) = LENGTHS[key] ? units.to_si(:length, number) * LENGTHS[key] : number
      end
    end
  end
end
