# frozen_string_literal: true

module Thistle
  module Store
    # Process: many rows into one table through one prepared statement: a third of the time of building SQL for each.
    module Bulk
      module_function

      # rows: hashes; a column that a row does not name is NULL, so name the columns that have a default.
      def insert(table, rows)
        return if rows.empty?

        columns = rows.flat_map(&:keys).uniq
        db = Sequel::Model.db
        names = columns.map { |column| db.literal(Sequel.identifier(column)) }.join(", ")
        db.synchronize do |connection|
          marks = (["?"] * columns.size).join(", ")
          statement = connection.prepare("INSERT INTO #{db.literal(Sequel.identifier(table))} (#{names}) VALUES " \
                                         "(#{marks})")
          last = {} # what is bound stays bound: of many rows, some columns say the same
          rows.each do |row|
            columns.each_with_index do |column, n|
              value = row[column]
              next if last.fetch(n, self).equal?(value)

              statement.bind_param(n + 1, plain(last[n] = value))
            end
            statement.step
            statement.reset!
          end
        ensure
          statement&.close
        end
      end

      # As Sequel writes them.
      def plain(value)
        case value
        when nil, Numeric, String then value
        when true then 1
        when false then 0
        when Date then value.iso8601
        when Time then value.utc.strftime("%F %T.%6N")
        else value.to_s
        end
      end
      private_class_method :plain
    end
  end
end
