# frozen_string_literal: true

module Thistle
  module Store
    # Reading: how much mix stems and ground have taken in the group's own records, by method and size.
    module Usage
      MOST = 300 # records, the newest
      LEAST_ML = 0.01

      # The Core::Mix::Usage of a method of removal on stems of a size, without one record; nil where none is planned.
      def self.of(removal, size, except: nil)
        planned = removal.dose_ml[size] or return
        work, patch = Sequel[:treatments], Sequel[:patches]
        of_size = records(removal, except).join(:patches, id: work[:patch_id]).where(patch[:stem_size] => size)
        seen = of_size.where { work[:stems_done] >= 1 }.select_map((work[:mix_ml] / work[:stems_done]).as(:each))
        Core::Mix::Usage.new(planned.to_f, seen)
      end

      # The same for ground: mL on 100 m²; nil for work on stems.
      def self.on_ground(removal, except: nil)
        litres = removal.spray_l_per_100m2 or return
        work = Sequel[:treatments]
        seen = records(removal, except).where { work[:area_m2] >= 1 }
                                       .select_map((work[:mix_ml] / work[:area_m2] * 100).as(:each))
        Core::Mix::Usage.new(litres * 1000.0, seen)
      end

      # Live records of a method that say how much mix they took, the newest.
      def self.records(removal, except)
        work = Sequel[:treatments]
        Treatment.db[:treatments].where(work[:method_key] => removal.key, work[:deleted_at] => nil)
                 .where { work[:mix_ml] >= LEAST_ML }.exclude(work[:id] => except || 0).reverse(work[:id]).limit(MOST)
      end
      private_class_method :records
    end
  end
end
