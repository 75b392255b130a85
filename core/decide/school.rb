# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # A question that practitioners answer differently, as knowledge/schools.yml gives it: options {key => {label,
      # text}}, the default and why, and the plants it is about.
      School = Value.define(:key, :question, :default, :why, :options, :plants, :traits, :forms, :source) do
        # Is it asked of this plant at all?
        def about?(plant)
          return plants.include?(plant.key) if plants

          (traits.nil? || plant.is?(*traits.map(&:to_sym))) && (forms.nil? || forms.include?(plant.form.to_s))
        end

        def label(option) = options.fetch(option)["label"]
        def text(option) = options.fetch(option)["text"]
      end

      # Answers of a property and of a patch over the defaults.
      class School
        # {question => option}: the patch's word, else the property's, else the default; what is not an option is passed
        # over.
        def self.settle(*answers)
          Knowledge.shipped.schools.to_h do |name, school|
            key = name.to_sym
            [key, answers.filter_map { |given| given&.[](key) }.find { |option| school.options.key?(option) } ||
              school.default]
          end.freeze
        end

        # What counts where nobody answered; asked of the library when it is first needed, since the library loads this
        # file.
        def self.defaults = @defaults ||= settle
      end
    end
  end
end
