// The rules in the pocket: Ruby in a worker of its own, from the server's own source. It answers the same JSON as
// /identify.json, /decide.json and /mix.json. Messages: { id, act: 'open' | 'ask' | 'rest', … } → { id, told } or { id, fault }.
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
  %w[tz_info land page answer sums].each { |name| eval($pack["sources"]["pocket/#{name}.rb"], TOPLEVEL_BINDING, name) }
  Thistle::Pocket::Page.views = $pack["views"]
  Thistle::Pocket::Page.statics = $pack["statics"]
  Thistle::Pocket.open($pack.delete("library").unpack1("m0"))
  JS.global[:pack] = nil
`;
// [chance, mean of c log2 c] of each state, one after the other, as text: what Core::Identify::Evidence#mean adds up.
// Numbers: states, parts, then what each plant weighs, each part's shares, each state's rows of each part.
const means = (packed) => {
  const letters = atob(packed);
  const bytes = new Uint8Array(letters.length);
  for (let n = 0; n < letters.length; n += 1) bytes[n] = letters.charCodeAt(n);
  const all = new Float64Array(bytes.buffer);
  const [states, parts] = all;
  const plants = (all.length - 2) / (1 + parts + states * parts);
  const shares = 2 + plants;
  const rows = shares + parts * plants;
  const told = [];
  for (let state = 0; state < states; state += 1) {
    let chance = 0;
    let mean = 0;
    for (let n = 0; n < plants; n += 1) {
      let c = 0;
      for (let part = 0; part < parts; part += 1) {
        c += all[rows + (state * parts + part) * plants + n] * all[shares + part * plants + n];
      }
      const weighed = all[2 + n] * c;
      chance += weighed;
      mean += weighed * Math.log2(c);
    }
    told.push(chance, mean);
  }
  return JSON.stringify(told);
};
self.means = means;

// Gems are not looked for: nothing here comes from one, and looking takes longer than all the rest of Ruby's start.
const BARE = { RUBYOPT: '--disable-gems' };
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
    const made = await self['ruby-wasm-wasi'].DefaultRubyVM(module, { env: BARE });
    self.pack = source;
    made.vm.eval(START);
    vm = made.vm;
  }
  self.land = await text(land);
  vm.eval(TAKE);
  const day = vm.eval(`Thistle::Pocket.later(${Math.trunc(later)}).iso8601`).toString();
  return { day, ms: Math.round(performance.now() - from) };
};

// A part of the page that was told last.
const rest = ({ number }) => ({ text: vm.eval(`Thistle::Pocket.rest(${Math.trunc(number)})`).toString() });

let idle = 0;
let untidy = 0; // pages since Ruby last let go of what nobody needs
const tidy = () => {
  untidy = 0;
  vm.eval('GC.enable; GC.start');
};

const ask = ({ bench, params, what = 'page' }) => {
  const from = performance.now();
  self.bench = bench;
  self.asked = JSON.stringify(params);
  untidy += 1;
  if (untidy > 8) tidy();
  vm.eval('GC.disable'); // tidied up once nobody waits
  const told = vm.eval(ASK(what === 'answer' ? 'answer' : 'page')).toString();
  return { text: told, ms: Math.round(performance.now() - from) };
};

self.onmessage = async ({ data }) => {
  clearTimeout(idle);
  try {
    self.postMessage({ id: data.id, told: await { open: opened, ask, rest }[data.act](data) });
  } catch (error) {
    self.postMessage({ id: data.id, fault: String(error.message || error).slice(0, 2000) });
  }
  if (vm) idle = setTimeout(tidy, 400);
};
