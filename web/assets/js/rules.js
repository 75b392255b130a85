// The rules in the pocket: Ruby in a worker of its own, from the server's own source. It answers the same JSON as
// /identify.json, /decide.json and /mix.json. Messages: { id, act: 'open' | 'ask', … } → { id, told } or { id, fault }.
let vm = null;
const text = async (url) => {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`${url}: ${answer.status}`);
  return answer.text();
};

const START = `
  require "js"
  require "json"
  $pack = JSON.parse(JS.global[:pack].to_s)
  eval($pack["boot"], TOPLEVEL_BINDING, "pocket/boot.rb")
  Thistle::Sources.take($pack["sources"])
  %w[tz_info land page answer].each { |name| eval($pack["sources"]["pocket/#{name}.rb"], TOPLEVEL_BINDING, name) }
  Thistle::Pocket::Page.views = $pack["views"]
  Thistle::Pocket::Page.statics = $pack["statics"]
  Thistle::Pocket.open($pack.delete("library").unpack1("m0"))
  JS.global[:pack] = nil
`;
const TAKE = `
  told = JSON.parse(JS.global[:land].to_s)
  JS.global[:land] = nil
  Thistle::Pocket.take(told["clock"], told["land"].unpack1("m0"))
`;
const ASK = (what) => `Thistle::Pocket.${what}(JS.global[:bench].to_s, JSON.parse(JS.global[:asked].to_s))`;

const opened = async ({ glue, wasm, pack, land, later = 0 }) => {
  const from = performance.now();
  if (!vm) {
    importScripts(glue);
    const [module, source] = await Promise.all([
      WebAssembly.compileStreaming(fetch(wasm)).catch(async () =>
        WebAssembly.compile(await (await fetch(wasm)).arrayBuffer()),
      ),
      text(pack),
    ]);
    const made = await self['ruby-wasm-wasi'].DefaultRubyVM(module);
    self.pack = source;
    made.vm.eval(START);
    vm = made.vm;
  }
  self.land = await text(land);
  vm.eval(TAKE);
  const day = vm.eval(`Thistle::Pocket.later(${Math.trunc(later)}).iso8601`).toString();
  return { day, ms: Math.round(performance.now() - from) };
};

const ask = ({ bench, params, what = 'page' }) => {
  const from = performance.now();
  self.bench = bench;
  self.asked = JSON.stringify(params);
  const told = vm.eval(ASK(what === 'answer' ? 'answer' : 'page')).toString();
  return { text: told, ms: Math.round(performance.now() - from) };
};

self.onmessage = async ({ data }) => {
  try {
    self.postMessage({ id: data.id, told: data.act === 'open' ? await opened(data) : ask(data) });
  } catch (error) {
    self.postMessage({ id: data.id, fault: String(error.message || error).slice(0, 2000) });
  }
};
