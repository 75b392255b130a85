// What the server would refuse of a record, said beside its fields where nobody can be asked: the same words, from the
// same contracts (Web::Pocket::Checks). What it cannot know it lets through.
(() => {
  const LIKE_A_NUMBER = /^[+\-−]?[\d\s.,’'\u00a0\u202f]+$/;
  const plain = (text) => (/^[+-]?\d+([.]\d+)?$/.test(text) ? Number(text) : null);
  const KINDS = {
    integer: (text) => (LIKE_A_NUMBER.test(text) ? null : 'must be an integer'),
    number: (text) => (LIKE_A_NUMBER.test(text) ? null : 'must be a float'),
    date: (text) => {
      if (LIKE_A_NUMBER.test(text)) return null;
      const parts = text
        .match(/^(\d{4})-(\d\d)-(\d\d)$/)
        ?.slice(1)
        .map(Number);
      const day = parts && new Date(Date.UTC(parts[0], parts[1] - 1, parts[2]));
      return day && day.getUTCMonth() === parts[1] - 1 && day.getUTCDate() === parts[2] ? null : 'must be a date';
    },
  };

  const LIMITS = [
    ['above', (value, limit) => value > limit, 'must be greater than'],
    ['least', (value, limit) => value >= limit, 'must be greater than or equal to'],
    ['most', (value, limit) => value <= limit, 'must be less than or equal to'],
  ];

  const fault = (told, text) => {
    const wrong = KINDS[told.kind]?.(text);
    if (wrong) return wrong;
    if (told.among && !told.among.includes(text)) return `must be one of: ${told.among.join(', ')}`;
    if (told.letters && [...text].length > told.letters) return `size cannot be greater than ${told.letters}`;
    const value = ['integer', 'number'].includes(told.kind) ? plain(text) : null;
    const broken =
      value !== null && LIMITS.find(([name, holds]) => told[name] !== undefined && !holds(value, told[name]));
    return broken ? `${broken[2]} ${told[broken[0]]}` : null;
  };

  // {field => words} of what is wrong; table: as the server told it; route: "POST /work/treatments"; fields: [[name,
  // value]].
  const check = (table, route, fields) => {
    const key = Object.keys(table).find((one) => new RegExp(`^${one.replace(/:\w+/g, '[^/]+')}$`).test(route));
    if (!key || key === 'herbicide') return {};
    const said = new Map(fields.map(([name, value]) => [name, value.trim()]).filter(([, value]) => value));
    const wrong = {};
    for (const [name, told] of Object.entries(table[key])) {
      const text = said.get(name);
      const words = text === undefined ? told.needed && 'is missing' : fault(told, text);
      if (words) wrong[name] = words;
    }
    const { methods, asked } = table.herbicide || { methods: [], asked: [] };
    if (methods.includes(said.get('method_key')))
      asked
        .filter((name) => !said.has(name) && !(name === 'active_key' && said.has('product_id')))
        .forEach((name) => {
          wrong[name] ||= 'is needed: this method uses herbicide';
        });
    return wrong;
  };

  if (typeof module === 'object') module.exports = { check };
  else self.Checks = { check };
})();
