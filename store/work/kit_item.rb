# frozen_string_literal: true

module Thistle
  module Store
    # Model: tools that the group owns: how many, how many are broken or lent, when they were tested.
    class KitItem < Sequel::Model(:kit_items)
      include Live
      include OfGroup

      dataset_module do
        def named = order(:kind, Sequel.function(:lower, :name), :id)
      end

      # {key of kit.yml => how many can be used}; keys of which nobody counted any are left out.
      def self.usable(group_id = Acting.group_id)
        live.of_group(group_id).all.group_by(&:kind).transform_values { |some| some.sum(&:usable) }
      end

      def usable = [owned - broken - lent, 0].max

      # Not tested since the year began, or due for sharpening: words, none where all is well.
      def wants(today)
        [("test it before the season" if tested_on.nil? || tested_on < Date.new(today.year, 1, 1)),
         ("sharpen it" if sharpen_on && sharpen_on <= today)].compact
      end

      def take_off = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)
    end
  end
end
