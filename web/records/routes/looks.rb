# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Routes
        # Looks that say nothing of how well a method works, and those that do after all.
        module Looks
          ACTS = { "leave-out" => [true, "It no longer counts; who and why stand beside it."],
                   "take-in" => [false, "It counts again."] }.freeze

          def self.registered(app)
            ACTS.each do |act, (left_out, said)|
              app.post "/records/looks/:id/#{act}" do
                check = Store::Check[Whole.read(params["id"])] || halt(404)
                patch_at(check.patch_id)
                form = Forms::Amend.new(params, units:, today:, reasoned: left_out)
                raise Core::BadInput, "Your name, and why it says nothing, are needed." unless form.ok?

                check.correct(reason: nil, **form.values, left_out:)
                go_to "/recheck/learned", said
              rescue Store::Amendable::Outdated
                go_to "/recheck/learned", "Someone else corrected it meanwhile. Look again."
              end
            end
          end
        end
      end
    end
  end
end
