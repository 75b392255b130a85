// A term's first use on a page leads to the glossary: a dotted underline, its meaning on hover.
(() => {
  const SKIP = 'a, button, label, summary, option, legend, h1, h2, h3, svg, textarea, th, .code, .stamp, [data-field]';
  let terms = null;
  let every = null; // is there a term at all?
  let each = null;

  const link = (word) => {
    const [id, words] = terms[word.toLowerCase()] || terms[word.toLowerCase().replace(/s$/, '')];
    const made = document.createElement('a');
    made.className = 'term';
    made.href = `/glossary#${id}`;
    made.title = words;
    made.textContent = word;
    return made;
  };

  const mark = () => {
    const main = document.getElementById('main');
    const seen = new Set([...main.querySelectorAll('a.term')].map((made) => made.hash));
    const walker = document.createTreeWalker(main, NodeFilter.SHOW_TEXT, (node) =>
      every.test(node.data) && !node.parentElement.closest(SKIP) ? NodeFilter.FILTER_ACCEPT : NodeFilter.FILTER_SKIP,
    );
    const nodes = [];
    while (walker.nextNode()) nodes.push(walker.currentNode);
    nodes.forEach((node) => {
      const found = [...node.data.matchAll(each)].find(([word]) => !seen.has(link(word).hash));
      if (!found) return;
      const made = link(found[0]);
      seen.add(made.hash);
      const rest = node.splitText(found.index);
      rest.data = rest.data.slice(found[0].length);
      rest.before(made);
    });
  };

  const begin = async () => {
    if (location.pathname === '/glossary') return;
    const answer = await fetch('/glossary/terms.json').catch(() => null);
    if (!answer || !answer.ok) return; // without it nothing is underlined, and nothing else is lost
    terms = await answer.json();
    const words = Object.keys(terms).sort((one, other) => other.length - one.length);
    every = new RegExp(`\\b(?:${words.join('|')})s?\\b`, 'i');
    each = new RegExp(every.source, 'gi');
    mark();
    document.addEventListener('htmx:afterSettle', mark);
  };
  window.addEventListener('load', begin);
})();
