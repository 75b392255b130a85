# frozen_string_literal: true

require "json"
require "net/http"
require "selenium-webdriver"
require "socket"
require "tmpdir"
require_relative "../test/support/line"

# The rules in the pocket, in real Chromium without signal: a cold start until a bench answers, the next look, a patch's
# verdicts; each beside the server's own time for the same page. The machine is then slowed about four times by programs
# that keep its cores busy, as a phone would be slow.
class PocketBench
  ROOT = File.expand_path("..", __dir__)
  ROUNDS = 9
  BUSY = 6 # programs, on two cores: whoever works gets between a third and a quarter
  PAGES, PAIRS = ["/", "/survey", "/decide?patch=4", "/recheck"].freeze, 15 # with signal
  FLAGS = %w[--headless=new --no-sandbox --window-size=390,844].freeze

  def run(folder)
    port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
    server = spawn("ruby", "#{ROOT}/bin/server", "--port", port.to_s, "--data", folder, "--demo", out: File::NULL)
    sleep 0.5 until up?(port)
    @at = "http://127.0.0.1:#{port}"
    @line = Thistle::Testing::Line.new(port)
    browse { measure }
  ensure
    Process.kill("TERM", server) if server
    @line&.close_all
  end

  private

  def up?(port)
    Net::HTTP.get_response(URI("http://127.0.0.1:#{port}/glossary")).code == "200"
  rescue SystemCallError
    false
  end

  def browse
    options = Selenium::WebDriver::Chrome::Options.new(args: FLAGS, binary: "/usr/bin/chromium")
    @browser = Selenium::WebDriver.for(:chrome, options:, service: Selenium::WebDriver::Service.chrome(
      path: "/usr/bin/chromedriver"
    ))
    @browser.manage.timeouts.script_timeout = 300
    yield
  ensure
    @browser&.quit
  end

  def measure
    take_along
    PAGES.each { |path| beside(path) }
    server = { "identify" => served("/identify?c[habit]=shrub"), "decide" => served("/decide?patch=2") }
    @line.set(:dead)
    tell("as it is", server)
    busy = Array.new(BUSY) { spawn("ruby", "-e", "loop {}") }
    tell("slowed, #{BUSY} busy programs", server)
  ensure
    busy&.each { |pid| Process.kill("KILL", pid) }
  end

  # A page with signal, through the worker and at once without it, over and over: the middle of the differences.
  def beside(path)
    pairs = Array.new(PAIRS + 1) { [true, false].map { |bypass| loaded(path, bypass) } }.drop(1)
    more = pairs.map { |plain, through| through - plain }.sort
    puts format("%-18s %4d ms, %+d ms through the worker (half of the times %+d to %+d)", path,
                pairs.map(&:last).sort[PAIRS / 2], more[PAIRS / 2], more[PAIRS / 4], more[PAIRS * 3 / 4])
  end

  # Milliseconds until a page is there, by its own clock.
  def loaded(path, bypass)
    @browser.execute_cdp("Network.enable")
    @browser.execute_cdp("Network.setBypassServiceWorker", bypass:)
    @browser.get("http://127.0.0.1:#{@line.port}#{path}")
    script("return performance.getEntriesByType('navigation')[0].loadEventEnd")
  end

  def tell(how, server)
    cold = middle(3) { open_bench("/identify?c[habit]=shrub") }
    look = middle(ROUNDS) { choose }
    decide = middle(3) { open_bench("/decide?patch=2") }
    again = middle(ROUNDS) { ask("/decide?patch=2") }
    puts "#{how}: cold start to an answer #{cold.round(1)} s; next look #{(look * 1000).round} ms " \
         "(#{(look / server["identify"]).round(1)} x the server's); decide cold #{decide.round(1)} s, then " \
         "#{(again * 1000).round} ms (#{(again / server["decide"]).round(1)} x)"
  end

  def take_along
    @browser.get("http://127.0.0.1:#{@line.port}/pocket")
    sleep 0.2 until script("return Boolean(navigator.serviceWorker.controller)")
    script("document.querySelector('[data-pocket-take]').click()")
    sleep 0.5 until script("return document.querySelector('[data-pocket-along-said]').textContent").include?("as of")
  end

  def open_bench(path)
    clock do
      @browser.get("http://127.0.0.1:#{@line.port}#{path}")
      answered
    end
  end

  # The look that is asked for, answered as a likely plant has it.
  def choose
    timed("const one = document.querySelector('#bench .looks.first label:has(small) input');" \
          "one.checked = true; one.dispatchEvent(new Event('change', { bubbles: true }));")
  end

  # Another question while the worker lives, as a link asks it.
  def ask(path)
    timed("const link = Object.assign(document.createElement('a'), { href: #{path.to_json} });" \
          "document.body.append(link); link.click(); link.remove();")
  end

  # Seconds from what a person does until the answer stands there, told by the page itself: whoever asks it over and
  # over slows it.
  def timed(does)
    whole
    @browser.execute_async_script(<<~JS)
      const [done] = arguments;
      const said = document.getElementById('rules-said');
      said.textContent = '';
      const from = performance.now();
      new MutationObserver((_, all) => {
        if (!said.textContent.includes('Worked out')) return;
        all.disconnect();
        requestAnimationFrame(() => done((performance.now() - from) / 1000));
      }).observe(said, { childList: true });
      #{does}
    JS
  end

  def answered
    sleep 0.005 until script("return document.getElementById('rules-said')?.textContent || ''").include?("Worked out")
  end

  # Parts that come after the answer.
  def whole = (sleep 0.05 while script("return Boolean(document.querySelector('main [data-later]'))"))

  def served(path) = middle(ROUNDS) { clock { Net::HTTP.get(URI(@at + path.gsub("[", "%5B").gsub("]", "%5D"))) } }
  def script(...) = @browser.execute_script(...)

  def clock
    from = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    yield
    Process.clock_gettime(Process::CLOCK_MONOTONIC) - from
  end

  def middle(rounds, &) = Array.new(rounds, &).sort[rounds / 2]
end

Dir.mktmpdir { |folder| PocketBench.new.run(folder) } if $PROGRAM_NAME == __FILE__
