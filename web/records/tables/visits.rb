# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # Open visits of the property at hand.
        class Visits < Table
          FAR = 4000 # days ahead

          def self.title = "Visits"
          def self.start = ["/work", "Record a treatment"]
          def dataset = Store::Task.due(through: @today + FAR).where(property_id: @property.id)
          def address(task) = Recheck::Words.made_at(task)

          def columns
            @columns ||= [
              dated("Due", :due_on, by: Sequel[:tasks][:due_on]),
              plain("Patch", :code, by: [Sequel.function(:length, :code), :code]),
              keyed("Plant", :plant_key) { |one| plant_name(one[:plant_key]) },
              keyed("Kind", :kind, by: Sequel[:tasks][:kind]) { |one| Store::Task::KINDS.fetch(one.kind) },
              plain("Why", :reason, by: nil)
            ]
          end

          def filters
            [words, filter("asks", "Kind", Store::Task::KINDS), *days]
          end

          def acts
            { "made" => "Made today", "drop" => "Take off the list" }
              .map { |key, label| act(key, label) }
          end

          def act_made(tasks) = said(tasks, done_on: @today, done_by: "hand")
          def act_drop(tasks) = said(tasks, dropped_at: Time.now.utc)

          # What was said of them is taken back by saying it the other way.
          def undo(key) = acts.any? { |one| one.key == key } ? "back/#{ticked.join("-")}" : nil

          def back(ids)
            here = Store::Task.where(id: ids, patch_id: @property.live_patches.unordered.select(:id))
            own = here.all.select(&:by_word?)
            own.each { |task| Store::Wishes.say(task, done_on: nil, done_by: nil, dropped_at: nil) }.size
          end

          private

          # A visit that follows from a record is made by its record, and nobody's word takes it off.
          def said(tasks, **word)
            others = tasks.reject(&:by_word?).map { |one| one[:code] }.uniq
            refuse_rows("A check or a treatment makes these visits: #{others.join(", ")}. Nothing was changed.") if
              others.any?
            tasks.each { |one| Store::Wishes.say(Store::Task[one.id], **word) }
            tasks.size
          end

          def narrowed(found, key, value)
            case key
            when "q" then found.where(Sequel[:tasks][:patch_id] => on_patches(value))
            when "asks" then found.where(Sequel[:tasks][:kind] => value)
            else spanned(found, key, value, Sequel[:tasks][:due_on])
            end
          end
        end
      end
    end
  end
end
