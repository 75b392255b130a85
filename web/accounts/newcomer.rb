# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # Makes an account, for the pages and for the command line; a password is judged by the door's own rules.
      module Newcomer
        # The password will not do; the message says why.
        class Refused < StandardError; end

        module_function

        def make(email, name, keeper: false)
          Store::Account.create(email: email.strip.downcase, name:, keeper:, status_id: Store::Account::OPEN)
        end

        # Raises Refused.
        def password(account, password)
          words = Door.rodauth.internal_request_eval(account_id: account.id) do
            account_from_id(account_id_or_session_value)
            password_meets_requirements?(password) ? set_password(password) && nil : password_requirement_message
          end
          raise Refused, words if words.is_a?(String)
        end
      end
    end
  end
end
