# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # What this copy writes to people: plain letters, each with one link.
      module Letters
        module_function

        def reset(name, link)
          "#{name},\n\nsomebody asked for a new password for your account. Choose one here, within a day:\n\n" \
            "#{link}\n\nIf it was not you, do nothing: your password stays as it is.\n"
        end

        def unlock(name, link)
          "#{name},\n\nyour account was locked after too many wrong passwords. It opens again in an hour, or " \
            "here:\n\n" \
            "#{link}\n\nIf you did not try them, choose another password once you are in.\n"
        end

        def address(name, link)
          "#{name},\n\nyour account is to have this mail address from now on. Say yes here, within a day:\n\n" \
            "#{link}\n\nIf you did not ask for it, do nothing: the address stays as it was.\n"
        end

        def changed(name, act)
          "#{name},\n\nwhoever signed in with your account just #{act}.\n\n" \
            "If it was not you: sign out on every device, choose another password, and tell the steward.\n"
        end

        def invitation(name, by, places, link, days)
          "#{name},\n\n#{by} gave you an account for the records of #{places}. Choose a password here, within " \
            "#{Words.count(days, "day")}:\n\n#{link}\n\nOnce you are in you can make a passkey, and need no password.\n"
        end
      end
    end
  end
end
