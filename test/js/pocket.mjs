// node test/js/pocket.mjs RULES QUESTIONS: answers questions as a phone would, one JSON line each. RULES is a folder with
// pack.json and a file of JSON for each land; a question is [land, bench, params, what].
import { readFileSync } from 'node:fs';
import { DefaultRubyVM } from '../../node_modules/@ruby/wasm-wasi/dist/esm/node.js';

const [folder, asked] = process.argv.slice(2);
const ruby = new URL('../../node_modules/@ruby/3.3-wasm-wasi/dist/ruby+stdlib.wasm', import.meta.url);
const worker = readFileSync(new URL('../../web/assets/js/rules.js', import.meta.url), 'utf8');
const [start, take] = ['START', 'TAKE'].map((name) =>
  worker.match(new RegExp(`const ${name} = \`([^]*?)\`;`))[1].replaceAll('\\\\', '\\'),
);
globalThis.means = new Function(`return ${worker.match(/const means = ([^]*?\n});/)[1]}`)();
const { vm } = await DefaultRubyVM(await WebAssembly.compile(readFileSync(ruby)), {
  env: { RUBYOPT: worker.match(/RUBYOPT: '(.*?)'/)[1] },
});
globalThis.pack = readFileSync(`${folder}/pack.json`, 'utf8');
vm.eval(start);
let here = null;
for (const [land, bench, params, what] of JSON.parse(readFileSync(asked, 'utf8'))) {
  if (land !== here) {
    globalThis.land = readFileSync(`${folder}/${land}.json`, 'utf8');
    vm.eval(take);
    here = land;
  }
  globalThis.bench = bench;
  globalThis.asked = JSON.stringify(params);
  const from = performance.now();
  let text;
  try {
    text = vm.eval(`Thistle::Pocket.${what}(JS.global[:bench].to_s, JSON.parse(JS.global[:asked].to_s))`).toString();
    text = text.replace(/<div data-later="(\d+)"><\/div>/g, (_, number) =>
      vm.eval(`Thistle::Pocket.rest(${number})`).toString(),
    );
  } catch (error) {
    text = `fault: ${error.message}`;
  }
  process.stdout.write(`${JSON.stringify({ text, ms: Math.round(performance.now() - from) })}\n`);
}
