# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # A patch split by a line, cut down by an area, or merged with another. Each answers what to say, or nil with
        # errors.
        class Reshape < Drawn
          class Fields < Form::Contract
            params do
              required(:seen_on).filled(:date)
              optional(:geometry).filled(:string)
              optional(:other).filled(:integer)
            end
            rule(:seen_on).validate(:day_of_record)
          end

          attr_reader :goes_to

          def split(patch)
            tried do |shape|
              parts = Store::Reshape.new(patch).split(shape, on: values[:seen_on])
              said(patch, "#{patch.code} is #{[patch.code, *parts.map(&:code)].join(" and ")} now.")
            end
          end

          def cut_off(patch)
            tried do |shape|
              part = Store::Reshape.new(patch).cut_off(shape, on: values[:seen_on])
              said(part, "#{part.code} was cut off #{patch.code} and remembers its history. Record what cleared it.")
            end
          end

          def merge(patch)
            other = Store::Patch.live[id: values[:other]] if values[:other]
            return failed(:other, "Choose the patch to take in.") && nil unless other
            return unless ok?

            Store::Reshape.new(patch).merge(other, on: values[:seen_on])
            said(patch, "#{other.code} is part of #{patch.code} now; its records came along.")
          rescue Core::BadInput => e
            failed(e.field, e.message) && nil
          end

          private

          def tried
            shape = read_shape or return
            yield shape
          rescue Core::BadInput => e
            failed(e.field, e.message) && nil
          end

          def said(patch, words)
            @goes_to = patch.id
            words
          end
        end
      end
    end
  end
end
