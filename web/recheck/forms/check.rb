# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Forms
        # What came back: live stumps, stems that were missed, suckers, seedlings, cover left; how hard it was searched.
        class Check < Form
          class Fields < Form::Contract
            option :treated, default: -> {}
            option :sizes, default: -> { {} } # stems treated by thickness

            params do
              required(:checked_on).filled(:date)
              required(:resprouts).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              required(:missed).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              optional(:suckers).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              required(:seedlings).filled(:integer, gteq?: 0, lteq?: 10_000_000)
              optional(:seedlings_seen).filled(:string, included_in?: Store::Check::SEEDLINGS.keys)
              optional(:frame_count).filled(:integer, gteq?: 0, lteq?: 100_000)
              optional(:frame_area).filled(:float, gt?: 0, lteq?: 10_000)
              optional(:cover_class).filled(:integer, gteq?: 1, lteq?: 6)
              optional(:natives).filled(:string, included_in?: Store::Check::NATIVES.keys)
              optional(:seed_fall).filled(:string, included_in?: Core::Recheck::SeedFall::ANSWERS.keys)
              optional(:searchers).filled(:integer, gteq?: 1, lteq?: 200)
              optional(:minutes).filled(:integer, gteq?: 1, lteq?: 1440)
              optional(:sight).filled(:string, included_in?: Store::Check::SIGHTS.keys)
              optional(:untreated).filled(:integer, gteq?: 1, lteq?: 1_000_000)
              optional(:untreated_alive).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              Form::BySize::FIELDS.each_value { |name| optional(name).filled(:integer, gteq?: 0, lteq?: 1_000_000) }
              optional(:people).filled(:string, max_size?: 400)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:checked_on).validate(:day_of_record)
            rule(:resprouts) do
              if treated && value && value > treated
                key.failure("is more than the #{treated} that were treated: count missed stems apart")
              end
            end
            Form::BySize::FIELDS.each do |size, name|
              rule(name) do
                most = sizes[size]
                key.failure("is more than the #{most} that were treated") if value && most && value > most
              end
            end
            rule(:frame_count, :frame_area).validate(:both_or_neither)
            rule(:untreated, :untreated_alive).validate(:both_or_neither)
            rule(:untreated_alive, :untreated) do
              alive, all = values.values_at(:untreated_alive, :untreated)
              key(:untreated_alive).failure("is more than the #{all} beside") if alive && all && alive > all
            end
            rule(:seedlings_seen, :seedlings) do
              counted = values[:seedlings].to_i.positive? || values[:frame_count].to_i.positive?
              key(:seedlings).failure("were counted: none were seen?") if values[:seedlings_seen] == "none" && counted
            end
          end

          # A form filled from a record.
          def self.of(check, units, today)
            frame = units.from_si(:area, check.frame_m2)&.round(3)
            known = check.values.slice(*FIELDS).merge(frame_area: frame, **Form::BySize.typed(check.alive_by_size))
            new(typed(known), units:, today:)
          end

          FIELDS = %i[checked_on resprouts missed suckers seedlings seedlings_seen frame_count cover_class natives
                      seed_fall searchers minutes sight untreated untreated_alive people note].freeze

          def store(patch)
            Store::Check.record(patch, **columns) if ok?
          end

          # The columns as typed.
          def columns
            said = FIELDS.to_h { |field| [field, values[field]] }
            frame = si(:frame_area, :area)
            alive = [values[:resprouts].to_i, Form::BySize.sum(values)].max
            said.merge(suckers: values[:suckers] || 0, frame_m2: frame, resprouts: alive,
                       alive_by_size: Form::BySize.kept(values),
                       seedlings_seen: frame ? "frame" : values[:seedlings_seen])
          end
        end
      end
    end
  end
end
