# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # The rules that count at a property, which were switched off, and which patches each of them decides today.
      class RulesBoard
        LOOKED = 40 # open patches that are asked
        SHOWN = 6

        attr_reader :property

        def initialize(property, today)
          @property, @today = property, today
        end

        # {force => [Rule]}, the ones that nobody switches off first.
        def groups
          Core::Decide::Rule.all.sort_by(&:title).group_by(&:force)
                            .sort_by { |force, _| Core::Decide::Rule::FORCES.index(force) }.to_h
        end

        def off
          @off ||= Store::RuleSetting.live.where(property_id: property.id)
                                     .all.to_h { |setting| [setting.rule_key.to_sym, setting] }
        end

        def local = @local ||= Store::LocalRule.live.where(property_id: property.id).order(:id).eager(:zone).all

        # Zones that a patch knows to stand in, so that a rule can hold there.
        def zones = property.zones.reject { |zone| Store::Surroundings::SILENT.include?(zone.kind) }.sort_by(&:label)

        # Patches on which the rule decided a verdict of today.
        def decides(key) = decided.fetch(key, [])

        def looked_at = patches.size

        private

        def patches
          @patches ||= begin
            open = property.live_patches.unordered.wanting_work.exclude(plant_key: nil).order(:id).limit(LOOKED)
                           .for_agenda
            open.eager(:treatments).all.each { |patch| patch.associations[:property] = property }
          end
        end

        # {rule => [patch]}
        def decided
          @decided ||= patches.each_with_object(Hash.new { |hash, key| hash[key] = [] }) do |patch, all|
            bench = Core::Decide::Bench.new(patch.facts(@today), property.site(@today))
            keys = bench.named.flat_map { |removal| bench.verdict(removal).deciding.map(&:rule) }
            keys.uniq.each { |key| all[key] << patch }
          end
        end
      end
    end
  end
end
