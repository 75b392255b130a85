# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Forms
        # A mail address, as far as one can tell by looking.
        module Address
          PATTERN = /\A[^,;@\s]{1,64}@[^,;@\s]+\.[^,;@\s.]+\z/

          def self.fits?(text) = text.to_s.size <= 255 && text.to_s.match?(PATTERN)
        end
      end
    end
  end
end
