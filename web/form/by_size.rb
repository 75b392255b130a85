# frozen_string_literal: true

module Thistle
  module Web
    class Form
      # Stems by thickness as typed, a field a size ("size_pencil"), kept as JSON.
      module BySize
        FIELDS = Core::Removal::SIZES.to_h { |size| [size, :"size_#{size}"] }.freeze

        module_function

        # {size => number} of those that were typed, and are numbers.
        def read(values) = FIELDS.transform_values { |field| values[field] }.select { |_, one| one.is_a?(Integer) }

        # The same as it is kept; nil where none was typed.
        def kept(values) = read(values).then { |sizes| sizes.empty? ? nil : JSON.generate(sizes) }

        # What is kept, as somebody would type it.
        def typed(json) = JSON.parse(json || "{}").to_h { |size, number| [FIELDS.fetch(size), number] }

        def sum(values) = read(values).values.sum
      end
    end
  end
end
