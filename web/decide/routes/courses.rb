# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Routes
        # A chosen method over years: laid out, begun, edited, carried out step by step.
        module Courses
          def self.registered(app)
            begun(app)
            steps(app)
          end

          def self.begun(app)
            app.get "/decide/courses" do
              here = Store::Course.live.join(:patches, { id: :patch_id, property_id: property.id, deleted_at: nil },
                                             table_alias: :p)
              turns = Turns.new(here.select_all(:courses).order(:code).eager(:steps, :patch), params)
              show "decide/courses", turns: do
                go_on("page" => turns.after) if turns.after
                { courses: turns.rows.map { |course| Answers.course(course) } }
              end
            end

            app.get "/decide/courses/new" do
              desk = CourseDesk.new(params, named(patch_at(params["patch"])), today)
              show("decide/course_new", desk:, form: Form::Blank.new) { Answers.course_plan(desk) }
            end

            app.post "/decide/courses" do
              desk = CourseDesk.new(params, named(patch_at(params["patch"])), today)
              form = Forms::Course.new(params, units:, today:, otherwise: desk.otherwise?)
              unless desk.course.possible?
                form.failed(:person, "cannot start: the rules do not allow this method on any day within a year")
              end
              next show("decide/course_new", status: 422, desk:, form:) unless form.ok?

              course = desk.begin(form)
              go_to "/decide/courses/#{course.id}", "The course has begun. Today asks for its next step."
            end

            app.get "/decide/courses/:id" do
              course = course_at(params["id"])
              show("decide/course", course:, form: Form::Blank.new, at: nil) { Answers.course(course) }
            end

            app.post "/decide/courses/:id/leave" do
              course = course_at(params["id"])
              course.left_at ? course.resume : course.leave
              offer_undo "/decide/courses/#{course.id}/leave"
              go_to "/decide/courses/#{course.id}",
                    course.left_at ? "The course is left. What was done stays on record." : "The course goes on."
            end
          end

          def self.steps(app)
            app.post "/decide/courses/:id/steps" do
              course = course_at(params["id"])
              form = Forms::CourseStep.new(params, units:, today:)
              next go_to("/decide/courses/#{course.id}", "The step is added.") if form.add_to(course)

              show "decide/course", status: 422, course:, form:, at: :new
            end

            app.post "/decide/steps/:id" do
              step = Store::CourseStep[Whole.read(params["id"])] || halt(404)
              course = course_at(step.course_id)
              form = Forms::CourseStep.new(params, units:, today:)
              next go_to("/decide/courses/#{course.id}", "The step is kept.") if form.store(step)

              show "decide/course", status: 422, course:, form:, at: step.id
            end

            toggled(app, "done") { |step, today| step.toggle(today) }
            toggled(app, "drop") { |step| step.change(deleted_at: step.deleted_at ? nil : Time.now.utc) }
          end

          # What is pressed again takes it back.
          def self.toggled(app, name, &change)
            app.post "/decide/steps/:id/#{name}" do
              step = Store::CourseStep[Whole.read(params["id"])] || halt(404)
              course = course_at(step.course_id)
              change[step, today]
              offer_undo "/decide/steps/#{step.id}/#{name}"
              go_to "/decide/courses/#{course.id}", decide_words.step_said(step)
            end
          end
        end
      end
    end
  end
end
