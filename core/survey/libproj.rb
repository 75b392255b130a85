# frozen_string_literal: true

require "fiddle"

module Thistle
  module Core
    module Survey
      # The functions of libproj that are called here, through Fiddle. Debian 12 has libproj.so.25; the unversioned
      # name comes with libproj-dev.
      module Libproj
        DOUBLE, POINTER, SIZE = Fiddle::TYPE_DOUBLE, Fiddle::TYPE_VOIDP, Fiddle::TYPE_SIZE_T
        INT = Fiddle::TYPE_INT
        SIGNATURES = {
          geod_init: [[POINTER, DOUBLE, DOUBLE], Fiddle::TYPE_VOID],
          geod_inverse: [[POINTER, *([DOUBLE] * 4), *([POINTER] * 3)], Fiddle::TYPE_VOID],
          geod_polygonarea: [[POINTER, POINTER, POINTER, INT, POINTER, POINTER], Fiddle::TYPE_VOID],
          proj_context_create: [[], POINTER],
          proj_create: [[POINTER, POINTER], POINTER],
          proj_trans_array: [[POINTER, INT, SIZE, POINTER], INT]
        }.freeze
        LIBRARY = Fiddle.dlopen("libproj.so")
        # Each call takes a microsecond or less: handing the interpreter's lock over and back would cost more.
        FUNCTIONS = SIGNATURES.to_h do |name, (takes, gives)|
          [name, Fiddle::Function.new(LIBRARY[name.to_s], takes, gives, need_gvl: true)]
        end.freeze

        def self.[](name) = FUNCTIONS.fetch(name)
      end
    end
  end
end
