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

          "No plant would have been visible on that day, so this is not a clean check."
        end

        def early(check)
          return unless @first_work.nil? || check.checked_on < @first_work

          "This check is from before the first treatment, so it does not show how well a method worked."
        end

        def twice(check)
          return unless @days.include?(check.checked_on)

          "There is another check on that day. Both are saved; if either found live plants, they count."
        end

        def placed(photo)
          return unless photo
          return "The photograph has no location." if photo.empty?

          point = Core::Survey::Shape.new({ "type" => "Point", "coordinates" => photo.reverse })
          metres = @patch.shape.distance(point)
          "The photograph was taken #{metres.round} m from the patch: is it of another place?" if metres > FAR_M
        end
      end
    end
  end
end
