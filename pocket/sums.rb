# frozen_string_literal: true

module Thistle
  # A phone's own way to a sum.
  module Pocket
    # Ruby's numbers with a point are slow on a phone: each is made anew. The longest of sums goes to the browser
    # (means in web/assets/js/rules.js), as bytes; it adds in the same order, so that the same bits come back.
    module Sums
      def means(states, shares, weights)
        rows = [[states.size, shares.size], weights, *shares, *states.flatten(1)]
        packed = [rows.map { |row| row.pack("d*") }.join].pack("m0")
        JSON.parse(JS.global.call(:means, packed).to_s).each_slice(2).to_a
      end
    end
    Core::Identify::Evidence.prepend(Sums)
  end
end
