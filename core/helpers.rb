# frozen_string_literal: true

require "io/wait"

module Thistle
  module Core
    # Works on a list in processes of its own, a piece ahead of whoever uses the answers: the other cores help, and
    # those who are served here don't wait for Ruby's lock meanwhile.
    #
    #   Helpers.map(slices) { |slice| measured(slice) }.each { |answer| store(answer) }
    module Helpers
      class Broken < StandardError; end

      HELPERS = 2
      PATIENCE = 600 # s for one piece
      HEAD = "Q>" # the bytes of an answer, before it
      HEAD_BYTES = 8
      NICE = 5 # pages go before

      module_function

      # What the block answers to each, in order, as it comes; it must be such as can be marshalled. Raises Broken when
      # the block fails or its process ends.
      def map(list, &work)
        Enumerator.new do |answers|
          helpers = []
          each_share(list) { |share| helpers << helper(share, &work) }
          list.size.times { |n| answers << answer(helpers[n % helpers.size].first) }
        ensure
          helpers.each do |from, process|
            from.close
            Apart.finish(process)
          end
        end
      end

      # Every second piece to the one, the others to the other.
      def each_share(list)
        count = [HELPERS, list.size].min
        count.times { |first| yield list.each_slice(count).filter_map { |some| some[first] } }
      end

      # [what it says, its process]
      def helper(share, &work)
        from, into = IO.pipe(binmode: true)
        [from, fork { inside(share, into, &work) }]
      ensure
        into&.close
      end

      def inside(list, into)
        Process.setpriority(Process::PRIO_PROCESS, 0, NICE)
        list.each { |piece| tell(into, [yield(piece), nil]) }
      rescue StandardError => e
        tell(into, [nil, "#{e.class}: #{e.message}"])
      ensure
        exit!
      end

      def tell(into, said)
        bytes = Marshal.dump(said)
        into.write([bytes.bytesize].pack(HEAD), bytes)
      rescue Errno::EPIPE
        nil # nobody asks any more
      end

      def answer(from)
        raise Broken, "no answer came" unless from.wait_readable(PATIENCE)

        head = from.read(HEAD_BYTES) or raise Broken, "its process ended"
        bytes = from.read(head.unpack1(HEAD))
        found, fault = Marshal.load(bytes) # rubocop:disable Security/MarshalLoad -- written by a fork of this process
        raise Broken, fault if fault

        found
      rescue TypeError, ArgumentError
        raise Broken, "its process ended"
      end
      private_class_method :each_share, :helper, :inside, :tell, :answer
    end
  end
end
