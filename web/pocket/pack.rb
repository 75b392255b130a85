# frozen_string_literal: true

require "digest"
require "json"
require "tilt/erubi"

module Thistle
  module Web
    module Pocket
      # What Ruby on a phone starts from: the sources of core and of the three benches, and the library with its chances
      # as this process read them. The same for every land; known by what it holds.
      class Pack
        FOLDERS = %w[core/**/*.rb pocket/*.rb].freeze
        # Of the benches what reads an address and answers it; nothing that asks the file.
        BENCHES = %w[web/identify/*.rb web/decide/*.rb web/mix/*.rb web/season/*.rb
                     web/{words,whole,page,marks}.rb].freeze
        VIEWS = %w[web/views/_*.erb web/views/identify/*.erb web/views/decide/*.erb web/views/mix/*.erb
                   web/plots/*.erb].freeze
        STATICS = %w[/img/icons.svg /img/marks.svg].freeze

        class << self
          # Worked out once a process, by whoever asks first.
          def shipped = LOCK.synchronize { @shipped ||= new }
        end
        LOCK = Mutex.new
        private_constant :LOCK

        def version = @version ||= Digest::SHA256.hexdigest(json)[0, 12]

        # {boot, sources: {path => text}, views: {name => Ruby}, statics: {path => address}, library: base64}
        def json
          @json ||= JSON.generate(boot: source("pocket/boot.rb"), sources:, views:, statics:,
                                  library: [library].pack("m0"))
        end

        private

        def source(path) = File.read(File.join(ROOT, path))

        # By the constants' places: "core/…", "web/…", "pocket/…"; what is no constant of its own stands in boot.
        def sources
          paths = [*FOLDERS, *BENCHES].flat_map { |pattern| Dir.glob(pattern, base: ROOT) }.sort.uniq
          (paths - ["pocket/boot.rb"]).to_h { |path| [path, source(path)] }
        end

        # What Tilt makes of each template, as the application sets it.
        def views
          VIEWS.flat_map { |pattern| Dir.glob(pattern, base: ROOT) }.sort.to_h do |path|
            template = Tilt::ErubiTemplate.new(File.join(ROOT, path), 1, outvar: "@_out_buf", **App.erb)
            [path.delete_prefix("web/").delete_prefix("views/").sub(%r{\Aplots/}, "../plots/").delete_suffix(".erb"),
             template.precompiled_template([])]
          end
        end

        def statics = STATICS.to_h { |path| [path, Statics.address(path)] }

        def library = Marshal.dump([Core::Knowledge.shipped, Core::Identify::Chances.of(Core::Knowledge.shipped)])
      end
    end
  end
end
