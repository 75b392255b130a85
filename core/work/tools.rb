# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What is carried for a method, by the stems and the plant that it is for (knowledge/kit.yml): a tool stands for
      # its kind until it is known what it is used on; what belongs to it comes along.
      module Tools
        OFTEN = %w[always usually].freeze # as plants' files say it

        module_function

        # [keys of kit.yml]. size: of the stems, nil where nobody knows; plant: nil for any.
        def keys(removal, plant: nil, size: nil, kit: Knowledge.shipped.kit)
          found = removal.kit.flat_map { |key| exact(kit.fetch(key), key, plant, size) }
          found.flat_map { |key| [key, *kit.fetch(key).fetch("with", [])] }.uniq
        end

        # {key => people who share one}
        def shares(removal, kit: Knowledge.shipped.kit, **told)
          keys(removal, **told, kit:).to_h { |key| [key, kit.fetch(key).fetch("share")] }
        end

        # The kind that a tool stands in for, loppers for saws; nil for what is of none.
        def family(key, kit = Knowledge.shipped.kit)
          kit.find { |_, told| told.fetch("sizes", {}).value?(key) || named?(told, key) }&.first
        end

        def named?(told, key) = told.fetch("plants", []).any? { |one| one["tool"] == key }

        def exact(told, key, plant, size)
          by_size = told.fetch("sizes", {})[size]
          by_plant = plant && told.fetch("plants", []).find { |one| fits?(plant, one) }&.fetch("tool")
          [by_size || by_plant || key]
        end

        def fits?(plant, one)
          roots = plant.characters.fetch("root_form", {}).select { |_, often| OFTEN.include?(often) }.keys
          (one["forms"].nil? || one["forms"].include?(plant.form.to_s)) &&
            (one["traits"].nil? || plant.is?(*one["traits"].map(&:to_sym))) &&
            (one["roots"].nil? || roots.intersect?(one["roots"]))
        end
        private_class_method :exact, :fits?, :named?
      end
    end
  end
end
