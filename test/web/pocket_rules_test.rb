# frozen_string_literal: true

require "open3"
require "support/web"

module Thistle
  # The rules in the pocket: Ruby compiled to WebAssembly, with what a phone takes along, answers as the server does, to
  # the last digit, on every land of the demo. QUESTIONS=500 asks as many; the suite asks some of each kind.
  class PocketRulesTest < RackTest
    ASKED = Integer(ENV.fetch("QUESTIONS", "45"))
    PAGES = 12 # of which the whole page is compared
    SIGNS = /(csrf" content|authenticity_token" value|once" value)="[^"]*"/
    # What needs shapes or records waits for signal.
    WAITS = %w[limits].freeze

    def test_a_phone_answers_as_the_server_does
      Dir.mktmpdir do |folder|
        carry(folder)
        File.write("#{folder}/asked.json", JSON.generate(questions))
        out, status = Open3.capture2("node", "--no-warnings", "--stack-size=4000", "#{ROOT}/test/js/pocket.mjs", folder,
                                     "#{folder}/asked.json")

        assert_predicate status, :success?
        said = out.lines.map { |line| JSON.parse(line)["text"] }

        assert_equal questions.size, said.size
        assert_empty questions.zip(said).filter_map { |question, text| fault(question, text) }.first(5)
      end
    end

    # A patch that did not come along is no other patch.
    def test_a_patch_that_did_not_come_along
      Dir.mktmpdir do |folder|
        carry(folder)
        unnamed = lands.first.live_patches.first(plant_key: nil).id.to_s
        asked = %w[decide mix].product(%w[answer page]).map { |bench, what| [1, bench, { patch: "99999" }, what] }
        asked << [1, "decide", { patch: unnamed }, "page"] << [1, "identify", { patch: unnamed }, "page"]
        File.write("#{folder}/asked.json", JSON.generate(asked))
        out, = Open3.capture2("node", "--no-warnings", "--stack-size=4000", "#{ROOT}/test/js/pocket.mjs", folder,
                              "#{folder}/asked.json")

        assert_equal 4, out.lines.grep(/was not taken along/).size
        assert_match(/Find out what .* is first/, out.lines[4])
        assert_match(/What do you see/, out.lines[5])
      end
    end

    private

    def lands = @lands ||= Store::Property.kept.order(:id).all

    def carry(folder)
      File.write("#{folder}/pack.json", Web::Pocket::Pack.shipped.json)
      lands.each do |land|
        get "/pocket/land.json?at=#{land.id}"
        File.write("#{folder}/#{land.id}.json", last_response.body)
      end
    end

    # [[land, bench, params, "answer" or "page"]], by land.
    def questions
      @questions ||= begin
        random = Random.new(36)
        asked = Array.new(ASKED) do |n|
          land = lands[n % lands.size]
          [land.id, *[method(:identify), method(:decide), method(:mix)][n % 3].call(land, random),
           n < PAGES ? "page" : "answer"]
        end
        asked.sort_by.with_index { |one, n| [one.first, n] }
      end
    end

    def identify(_land, random)
      kinds = Core::Knowledge.shipped.characters.values.reject(&:measured?)
      seen = kinds.sample(random.rand(1..6), random:).to_h { |one| [one.key, one.states.keys.sample(random:)] }
      ["identify", { "c" => seen }]
    end

    def decide(land, random)
      patch = land.live_patches.exclude(plant_key: nil).all.sample(random:)
      pinned = { "licensed" => %w[yes no], "size" => Core::Removal::SIZES, "slope" => %w[flat steep],
                 "stance" => %w[none stem any], "purpose" => %w[kill hold],
                 "date" => Array.new(5) { |n| (land.today + (n * 40)).iso8601 } }
      some = pinned.keys.sample(random.rand(0..3), random:).to_h { |key| [key, pinned[key].sample(random:)] }
      of = patch && random.rand < 0.7 ? { "patch" => patch.id.to_s } : { "plant" => weed(random) }
      ["decide", { **of, **some }]
    end

    def weed(random) = Core::Knowledge.shipped.invaders.sample(random:).key

    def mix(land, random)
      patch = land.live_patches.exclude(plant_key: nil).all.sample(random:)
      vessel = %w[jar tank].sample(random:)
      of = patch && random.rand < 0.5 ? { "patch" => patch.id.to_s } : {}
      ["mix", { **of, "vessel" => vessel, "stems" => random.rand(1..300).to_s, "area" => random.rand(5..4000).to_s }]
    end

    def fault(question, text)
      land, bench, params, what = question
      get "/#{bench}#{".json" if what == "answer"}?at=#{land}&#{Rack::Utils.build_nested_query(params)}"
      server = what == "page" ? last_response.as_sent : last_response.body
      return [question, text[0, 600]] if text.start_with?("fault")

      same = what == "answer" ? plain(server) == plain(text) : pages_alike?(bench, params, server, text)
      return if same

      server, text = [server, "<main>#{text}</main>"].map { |one| main(one) } if what == "page"
      at = server.each_char.with_index.find_index { |char, n| text[n] != char }.to_i
      [question, *[server, text].map { |one| one[[at - 60, 0].max, 200] }]
    end

    # A page to the letter; of a mix but for what waits for signal, which it says.
    def pages_alike?(bench, params, server, text)
      return main(server) == main("<main>#{text}</main>") if bench != "mix"

      text.include?(params["patch"] ? "is not worked out" : "wait for signal")
    end

    def plain(json) = JSON.parse(json).except(*WAITS)
    def main(html) = close_up(html[%r{<main.*?>(.*)</main>}m, 1].gsub(SIGNS, "")).strip
  end
end
