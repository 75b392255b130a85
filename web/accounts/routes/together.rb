# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Routes
        # Working together: what is said of a patch, and who takes a visit.
        module Together
          def self.registered(app)
            said(app)
            taken(app)
          end

          def self.said(app)
            app.post "/comments" do
              patch, body = patch_at(params["patch"]), params["body"].to_s.strip
              raise Core::BadInput.new("Write something first.", field: :body) if body.empty?
              raise Core::BadInput.new("That is longer than #{Store::Comment::LONGEST} letters.", field: :body) if
                body.size > Store::Comment::LONGEST

              staff = params["for_staff"] == "yes" && staff?
              task_id = Store::Task.undone.where(patch_id: patch.id, id: Whole.read(params["task"])).get(:id)
              Store::Comment.say(patch, who.account, body, for_staff: staff, task_id:,
                                                           accounts: Store::Members.new(patch.property).accounts)
              go_to "/survey/patches/#{patch.id}#said", "Said."
            end

            { "drop" => :take_back, "undo" => :bring_back }.each do |path, act|
              app.post "/comments/:id/#{path}" do
                comment = Store::Comment[Whole.read(params["id"])] || halt(404)
                comment.public_send(act)
                offer_undo "/comments/#{comment.id}/undo" if path == "drop"
                go_to "/survey/patches/#{comment.patch_id}#said", path == "drop" ? "Taken back." : "It stands again."
              end
            end
          end

          def self.taken(app)
            app.post "/survey/patches/:id/taken" do
              patch = patch_at(params["id"])
              account = params["account"].to_s.empty? ? nil : member_named(patch, params["account"])
              patch.this.update(taken_by: account&.id)
              go_to "/survey/patches/#{patch.id}", account ? "#{account.name} takes it." : "Nobody takes it yet."
            end

            app.post "/recheck/tasks/:id/assign" do
              task = Store::Task[Whole.read(params["id"])] || halt(404)
              account = params["account"].to_s.empty? ? nil : member_named(task.patch, params["account"])
              task.this.update(account_id: account&.id)
              go_to "/survey/patches/#{task.patch_id}", account ? "#{account.name} takes it." : "Nobody takes it yet."
            end
          end
          private_class_method :said, :taken
        end

        # Who takes what, and who reads what is for staff.
        module Helpers
          def staff? = may?(:change, :land)

          def member_named(patch, id)
            Store::Members.new(patch.property).accounts.find { |one| one.id == Whole.read(id) } || halt(404)
          end

          # What is said of a patch, as far as whoever asks may read it.
          def comments_on(patch)
            said = Store::Comment.live.where(patch_id: patch.id).order(:id).eager(:account, :task)
            (staff? ? said : said.open_to_all).all
          end
        end
      end
    end
  end
end
