# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # What the day and the next ten are good for, over the kinds of work that open patches want.
      class ConditionsBoard
        # said: the day's fit stretch, or what stands against it; patches: how many want such work.
        Row = Struct.new(:property, :site, :now, :kinds)
        Kind = Struct.new(:key, :fit, :patches, :stretch, :against)

        # wanted: {property id => {kind of work => patches}}.
        def initialize(properties, today, wanted)
          @properties, @today, @wanted = properties, today, wanted
        end

        # [Row] of the properties that want work.
        def rows
          @rows ||= @properties.select { |property| @wanted.key?(property.id) }.map { |property| row(property) }
        end

        # Every kind that any of them wants, in the library's order.
        def kinds = @kinds ||= Core::Knowledge.shipped.fits.keys & @wanted.values.flat_map(&:keys)

        # {kind => Fit} of one property, for the table of ten days.
        def fits(property)
          wanted = Core::Knowledge.shipped.fits.keys & @wanted.fetch(property.id, {}).keys
          wanted.to_h { |key| [key, fit(property, key)] }
        end

        private

        def row(property)
          site = property.site(@today)
          Row.new(property, site, Core::Season::Band.new(site).now,
                  @wanted.fetch(property.id).to_h { |key, n| [key, kind(property, key, n)] })
        end

        def kind(property, key, patches)
          fit = fit(property, key)
          stretch = fit.on(@today).max_by(&:hours)
          Kind.new(key, fit, patches, stretch, stretch ? nil : fit.blocked_by(@today)&.first)
        end

        def fit(property, key) = property.site(@today).fit(key, property.label_limits)
      end
    end
  end
end
