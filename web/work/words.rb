# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # What the work room says of a patch's best move.
      module Words
        extend Web::Words

        module_function

        # move: Core::Decide::Agenda::Item.
        def when_right(move, today)
          case move.group
          when :closing then "today; its seed ripens about #{day(move.seed_on)}"
          when :good then ["good today", move.until && "until #{near(move.until, today)}"].compact.join(" ")
          when :waiting then "from #{near(move.until, today)}"
          else "not possible yet"
          end
        end
      end
    end
  end
end
