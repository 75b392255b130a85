# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # A course as it would be, before anyone begins it: the method, what was advised, the steps and their days.
      class CourseDesk
        attr_reader :patch, :removal

        def initialize(params, patch, today)
          @patch, @today = patch, today
          @removal = Core::Knowledge.shipped.removal(params["method"])
        end

        def bench = @bench ||= Core::Decide::Bench.new(patch.facts(@today), patch.property.site(@today))
        def verdict = @verdict ||= bench.verdict(removal)
        def course = @course ||= Core::Decide::Course.new(bench, removal)

        # What the bench puts first; nil where it has nothing better than to report.
        def advised = bench.best&.removal
        def otherwise? = advised && advised != removal

        def begin(form)
          Store::Course.begin(patch, course, removal:, advised: advised&.key, person: form.values[:person],
                                             reason: form.values[:reason], today: @today)
        end
      end
    end
  end
end
