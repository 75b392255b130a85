# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Forms
        # Own minutes of a stem at each station of a crew, as they were typed.
        class Minutes
          MOST = 240.0

          FIELD = /\Aminutes_(\w+)\z/

          # params: {"minutes_cut" => text}.
          def initialize(params, units)
            @given = params.to_h.filter_map { |name, text| [name[FIELD, 1], text] if name.to_s.match?(FIELD) }
                           .select { |_, text| text.is_a?(String) && !text.strip.empty? }.to_h
            @read = @given.transform_values { |text| Core::Decimal.read(text, comma: units.comma) }
          end

          # {station => minutes}
          def kept = @read.compact

          # What cannot be so, a sentence; nil where all can.
          def complaint
            odd = @read.find { |_, minutes| minutes.nil? || !minutes.between?(0.01, MOST) } or return
            words = Core::Decimal.complaint(@given[odd.first],
                                            "is no number of minutes above 0 and up to #{MOST.round}")
            "“#{@given[odd.first][0, 20]}” #{words}. Nothing was changed."
          end
        end
      end
    end
  end
end
