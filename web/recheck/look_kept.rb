# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # What is said when a look is kept: where the patch stands now, and what is odd about the look.
      class LookKept
        FAR_M = 100 # from the patch, at which a photograph is of another place (memory)

        def initialize(patch)
          @patch, @was = patch, patch.state
          @first_work = patch.treatments.select { |work| work.removal.removes? }.map(&:done_on).min
          @days = patch.checks.map(&:checked_on)
        end

        # photo: [latitude, longitude] of the photograph, nil without one, [] for one that does not know.
        def said(check, photo)
          now = @patch.reload.state
          ["Check kept: #{@patch.code} is #{now}.", again(now), idle(check), early(check), twice(check), placed(photo)]
            .compact.join(" ")
        end

        private

        def again(now) = @was == "closed" && now != "closed" ? "It was over, and is open again." : nil

        def idle(check)
          return if check.live? || @patch.shows?(check.checked_on)

          "Nothing would have shown on that day, so it does not count as a clean look."
        end

        def early(check)
          return unless @first_work.nil? || check.checked_on < @first_work

          "No work was recorded by then, so it says nothing of how well it worked."
        end

        def twice(check)
          return unless @days.include?(check.checked_on)

          "There is another look of that day; both are kept, and what was alive counts."
        end

        def placed(photo)
          return unless photo
          return "The photograph does not know where it was taken." if photo.empty?

          point = Core::Survey::Shape.new({ "type" => "Point", "coordinates" => photo.reverse })
          metres = @patch.shape.distance(point)
          "The photograph was taken #{metres.round} m from the patch: is it of another place?" if metres > FAR_M
        end
      end
    end
  end
end
