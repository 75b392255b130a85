# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # How long this group takes, learned from its records: the logarithm of hours taken over hours planned is what the
      # group adds, what it adds with a method, and at a size, and what volunteers add; each normal about nothing, so
      # that few records move it little and a method with none leans on the others. The posterior is exact: one update
      # for each mean of like records.
      class Pace
        # One record: hours: person-hours taken; planned: what planning values say for as much.
        Seen = Value.define(:method, :size, :volunteers, :hours, :planned) do
          def log = Math.log(hours / planned)
          def told? = hours.to_f.positive? && planned.to_f.positive?
        end
        # Times the planned hours: median, low and high (80 %); count: records with the method.
        Factor = Value.define(:median, :low, :high, :count)

        # Standard deviations before any record, and of one record (memory).
        GROUP, METHOD, CELL, VOLUNTEERS, RECORD = 0.35, 0.3, 0.2, 0.25, 0.45
        SLOWER = 0.2 # what volunteers add, in logarithms, before any record (memory)

        # seen: [Seen].
        def initialize(seen)
          @seen = seen.select(&:told?)
          @names = [:group, :volunteers, *cells.map { |method, _| [:method, method] }.uniq, *cells]
          @at = @names.each_with_index.to_h
          @counts = @seen.map(&:method).tally
          learn
        end

        # Factor of a method at a stem size, for volunteers or for a paid crew; nil where the group has no records at
        # all.
        def of(method, size = nil, volunteers: false)
          return if @seen.empty?

          row = parts(method, size, volunteers)
          unknown = @at.key?([:method, method]) ? 0.0 : METHOD**2
          unknown += CELL**2 unless @at.key?([method, size])
          mean = row.sum { |n| @mean[n] }
          deviation = Math.sqrt(row.sum { |n| row.sum { |m| @covariance[n][m] } } + unknown)
          Factor.new(median: Math.exp(mean), low: Math.exp(mean - (Normal::Z80 * deviation)),
                     high: Math.exp(mean + (Normal::Z80 * deviation)), count: @counts.fetch(method, 0))
        end

        # [[method, size]] that there are records of.
        def cells = @cells ||= @seen.map { |one| [one.method, one.size] }.uniq

        private

        # Which of what is learned a kind of record hangs on.
        def parts(method, size, volunteers)
          names = [:group, [:method, method], [method, size]]
          names << :volunteers if volunteers
          names.filter_map { |name| @at[name] }
        end

        def learn
          @mean = @names.map { |name| name == :volunteers ? SLOWER : 0.0 }
          @covariance = @names.each_index.map { |n| @names.each_index.map { |m| n == m ? before(@names[n]) : 0.0 } }
          @seen.group_by { |one| [one.method, one.size, one.volunteers] }.each do |(method, size, volunteers), like|
            update(parts(method, size, volunteers), like.sum(&:log) / like.size, (RECORD**2) / like.size)
          end
        end

        def before(name)
          return { group: GROUP, volunteers: VOLUNTEERS }.fetch(name)**2 if name.is_a?(Symbol)

          (name.first == :method ? METHOD : CELL)**2
        end

        # Of a mean with a variance that hangs on the sum of some parts.
        def update(parts, mean, variance)
          lean = @covariance.map { |row| parts.sum { |n| row[n] } }
          whole = parts.sum { |n| lean[n] } + variance
          off = mean - parts.sum { |n| @mean[n] }
          @mean = @mean.each_with_index.map { |value, n| value + (lean[n] * off / whole) }
          @covariance = @covariance.each_with_index.map do |row, n|
            row.each_with_index.map { |value, m| value - (lean[n] * lean[m] / whole) }
          end
        end
      end
    end
  end
end
