# frozen_string_literal: true

module Thistle
  # Spoils good files at random: bytes changed, cut out, doubled or made up, a few at a time.
  module Spoiler
    module_function

    def spoilt(bytes, random)
      bytes = bytes.b
      random.rand(1..4).times do
        next if bytes.empty?

        at, length = random.rand(bytes.bytesize), random.rand(1..40)
        case random.rand(5)
        when 0 then bytes.setbyte(at, random.rand(256))
        when 1 then bytes.slice!(at, length)
        when 2 then bytes.insert(at, bytes.byteslice(at, length))
        when 3 then bytes.insert(at, random.bytes(length))
        else bytes = bytes.byteslice(0, [at, 1].max)
        end
      end
      bytes
    end
  end
end
