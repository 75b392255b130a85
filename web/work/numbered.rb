# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # A form among several on one page: its fields carry a number, "hours-5".
      Numbered = Struct.new(:form, :number) do
        def [](name) = form[plain(name)]
        def error(name) = form.error(plain(name))
        def hint(name) = form.hint(plain(name))
        def name(field) = :"#{field}-#{number}"

        private

        def plain(name) = name.to_s.delete_suffix("-#{number}").to_sym
      end
    end
  end
end
