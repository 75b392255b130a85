# frozen_string_literal: true

module Thistle
  module Store
    # Reading: how much mix stems have taken in the group's own records, by method and size.
    module Usage
      MOST = 300 # records, the newest
      LEAST_ML = 0.01

      # The Core::Mix::Usage of a method of removal on stems of a size, without one record; nil where none is planned.
      def self.of(removal, size, except: nil)
        planned = removal.dose_ml[size] or return
        work, patch = Sequel[:treatments], Sequel[:patches]
        seen = Treatment.db[:treatments].join(:patches, id: work[:patch_id])
                        .where(work[:method_key] => removal.key, work[:deleted_at] => nil, patch[:stem_size] => size)
                        .where { (work[:mix_ml] >= LEAST_ML) & (work[:stems_done] >= 1) }
                        .exclude(work[:id] => except || 0).reverse(work[:id]).limit(MOST)
                        .select_map((work[:mix_ml] / work[:stems_done]).as(:each))
        Core::Mix::Usage.new(planned.to_f, seen)
      end
    end
  end
end
