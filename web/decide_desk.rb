# frozen_string_literal: true

module Thistle
  module Web
    # Reads what was chosen on the decide bench over what the patch and the property say.
    # The address holds everything; a choice that is not there comes from the record.
    class DecideDesk
      attr_reader :choices, :errors

      def initialize(params, patch, property, today)
        @params, @patch, @property = params, patch, property
        @errors = {}
        @choices = pinned(base(today))
      end

      def site = @property.site(Store::Setting.today)
      def bench = @bench ||= Core::Decide::Bench.new(choices, site)

      # What is shown as chosen in a row of buttons.
      def shown
        now = bench.situation
        { "size" => choices.size, "stage" => now.stage.to_s, "soil" => now.soil.to_s, "stance" => choices.stance,
          "licensed" => yes_no(choices.licensed), "slope" => choices.slope, "natives_near" => yes_no(choices.natives_near),
          "aquatic_label" => yes_no(choices.aquatic_label), "settled" => yes_no(choices.settled), "reported" => yes_no(choices.reported) }
      end

      private

      def base(today)
        from_patch = @patch&.choices(today)
        plant = given("plant", Core::Knowledge.shipped.plants) && Core::Knowledge.shipped.plant(@params["plant"])
        plant ||= from_patch&.plant || Core::Knowledge.shipped.plant("amur_honeysuckle")
        return from_patch.with(plant:, new_here: @property.reports_first?(plant)) if from_patch

        Core::Decide::Choices.new(plant:, settled: false, date: today, new_here: @property.reports_first?(plant),
                                  stance: @property.stance, licensed: @property.licensed, aquatic_label: @property.aquatic_label, slope: "flat",
                                  size: "thumb", stems: 20, area_m2: 50)
      end

      def pinned(choices)
        changes = { date: date(choices.date), size: given("size", Core::Removal::SIZES), stance: given("stance", Core::Decide::Choices::STANCES),
                    slope: given("slope", Core::Decide::Choices::SLOPES), stage: given("stage", Core::Season::Phenology::STAGES)&.to_sym,
                    soil: given("soil", Core::Season::Soil::CLASSES)&.to_sym }.compact
        %w[licensed natives_near aquatic_label settled reported].each do |field|
          answer = given(field, %w[yes no])
          changes[field.to_sym] = answer == "yes" if answer
        end
        choices.with(**changes)
      end

      def given(field, known)
        value = @params[field].to_s
        return if value.empty?

        known.nil? || known.map { |k, _| k.to_s }.include?(value) ? value : nil
      end

      def date(today)
        return today unless given("date", nil)

        chosen = Date.iso8601(@params["date"])
        return chosen if (chosen - today).abs <= 366

        @errors[:date] = "Choose a date within a year of today."
        today
      rescue Date::Error
        @errors[:date] = "That is not a date."
        today
      end

      def yes_no(value) = { true => "yes", false => "no", nil => nil }[value]
    end
  end
end
