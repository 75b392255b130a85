// What every page does for a phone without signal: a record that is sent goes through the queue, so that nothing is lost
// whatever the line does; a page that comes from the phone says so; what waits is sent when there is signal. What this
// phone holds (/pocket) is told and taken along in along.js.
(() => {
  if (!window.indexedDB || !self.Keep) return;
  const { Keep } = self;
  const head = (name) => document.querySelector(`meta[name="${name}"]`)?.content;
  const count = (n, one, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

  // Addresses of records: [verb, pattern].
  const RECORDS = JSON.parse(head('records') || '[]').map((route) => {
    const [verb, path] = route.split(' ');
    return [verb, new RegExp(`^${path.replace(/:\w+/g, '[^/]+')}$`)];
  });
  const ACCOUNT = Number(head('account')); // whose page this is
  const LIVE = 12000; // ms that somebody waits before a record goes on in the background

  const ask = (path, init = {}) => fetch(path, { redirect: 'manual', cache: 'no-store', ...init });
  const ready = (async () => self.Queue({ store: Keep.store, ask, phone: await Keep.phone() }))();

  // One page or tab sends at a time.
  const alone = (work) => (navigator.locks ? navigator.locks.request('thistle-queue', work) : work());

  // — What waits, said at the head of the page.
  const say = async () => {
    const queue = await ready;
    const rows = await queue.all();
    const [left, stuck] = ['waiting', 'refused'].map((state) =>
      rows.filter((row) => row.state === state || (state === 'refused' && row.state === 'apart')),
    );
    document.querySelectorAll('[data-waiting]').forEach((mark) => {
      const words = [
        left.length && `${count(left.length, 'record')} to send`,
        stuck.length && `${count(stuck.length, 'record')} not taken`,
      ].filter(Boolean);
      mark.hidden = !words.length;
      mark.textContent = words.join(', ');
    });
    document.dispatchEvent(new CustomEvent('pocket:changed', { detail: rows }));
    return left;
  };

  let timer = null;
  const plan = (left) => {
    clearTimeout(timer);
    if (!left.length) return;
    const next = Math.min(...left.map((row) => row.next));
    timer = setTimeout(() => send(), Math.max(2000, next - Date.now()));
  };

  const send = async (how) => {
    const queue = await ready;
    if (!(await queue.waiting()).length) return { sent: 0, stopped: '', left: 0 };
    const answer = await alone(() => queue.send(how));
    if (answer.stopped === 'empty') await Keep.empty({ records: true });
    document.dispatchEvent(new CustomEvent('pocket:sent', { detail: answer }));
    plan(await say());
    return answer;
  };

  // — A record that somebody sends.
  const verbOf = (form, fields) => (fields.find(([name]) => name === '_method')?.[1] || form.method).toUpperCase();
  // Where it goes: as the button says, else the form.
  const actionOf = (form, submitter) =>
    new URL(submitter?.hasAttribute('formaction') ? submitter.formAction : form.action, location.href);
  const isRecord = ({ pathname, origin }, verb) => {
    return origin === location.origin && RECORDS.some(([one, path]) => one === verb && path.test(pathname));
  };

  // In which order records go: those of a patch one after another.
  const laneOf = (path, fields) => {
    const patch = fields.find(([name]) => name === 'patch')?.[1] || path.match(/patches\/(\d+)/)?.[1];
    return patch ? `patch ${patch}` : '';
  };

  const wordsOf = (form) =>
    form.dataset.said || document.querySelector('main h1')?.textContent.trim().replace(/\s+/g, ' ') || document.title;

  const labelsOf = (form) =>
    Object.fromEntries(
      [...form.elements]
        .filter((field) => field.name && field.labels?.length)
        .map((field) => [field.name, field.labels[0].textContent.trim().replace(/\s+/g, ' ')]),
    );

  const told = (form, submitter) => {
    const data = new FormData(form);
    if (submitter?.name) data.append(submitter.name, submitter.value);
    const all = [...data].filter(([name]) => !['authenticity_token', 'once'].includes(name));
    return {
      fields: all.filter(([, value]) => typeof value === 'string'),
      files: all
        .filter(([, value]) => value instanceof File && value.size)
        .map(([name, blob]) => ({ name, filename: blob.name, blob })),
    };
  };

  const notice = (form, html) => {
    let place = form.parentElement.querySelector(':scope > .kept-said');
    if (!place) {
      place = Object.assign(document.createElement('p'), { className: 'kept-said said' });
      place.setAttribute('role', 'status');
      form.before(place);
    }
    place.replaceChildren(...html);
    place.scrollIntoView({ block: 'center', behavior: 'smooth' });
  };
  const link = (words, href) => Object.assign(document.createElement('a'), { textContent: words, href });

  const WHY = {
    later: 'No signal. It is kept on this phone, and sent as soon as there is one. ',
    other: 'Somebody else is signed in now. It is kept on this phone, and sent once you are signed in again. ',
    shut: 'You are not signed in any more. It is kept on this phone; sign in, and it is sent. ',
  };

  // What the server would refuse, said beside its fields while nobody can be asked; was there anything?
  const faulty = async (form, row) => {
    const table = await Keep.store.meta('checks');
    const verb = verbOf(form, row.fields);
    const wrong = table ? self.Checks.check(table, `${verb} ${row.to.split('?')[0]}`, row.fields) : {};
    form.querySelectorAll('.bad-word[data-check]').forEach((one) => one.remove());
    for (const [name, words] of Object.entries(wrong)) {
      const field = form.elements[name];
      const place = (field?.length && !field.tagName ? field[0] : field)?.closest('.field, fieldset, label');
      const said = Object.assign(document.createElement('p'), { className: 'bad-word' });
      said.dataset.check = '';
      said.textContent = `${row.labels[name] || name} ${words}`;
      (place || form).append(said);
    }
    if (Object.keys(wrong).length) {
      notice(form, ['Not kept yet: put right what is said beside its fields.']);
      form.querySelector('.bad-word[data-check]').scrollIntoView({ block: 'center' });
    }
    return Object.keys(wrong).length > 0;
  };

  const record = async (form, submitter) => {
    const queue = await ready;
    const { fields, files } = told(form, submitter);
    const { pathname, search } = actionOf(form, submitter);
    const mend = new URLSearchParams(location.search).get('mend');
    const row = await queue.add({
      to: pathname + search,
      account: ACCOUNT,
      fields,
      files,
      lane: laneOf(pathname, fields),
      words: wordsOf(form),
      labels: labelsOf(form),
      page: location.pathname + location.search,
    });
    if (mend) await queue.drop(mend); // the one that it is instead of
    const slow = new Promise((resolve) => {
      setTimeout(() => resolve('later'), LIVE);
    });
    const answer = await Promise.race([alone(() => queue.sendNow(row)), slow]);
    if (answer.held || answer.place) {
      document.dispatchEvent(new CustomEvent('pocket:kept', { detail: row }));
      location.assign(answer.place || location.href);
      return;
    }
    if (answer.page) {
      document.open();
      document.write(answer.page);
      document.close();
      return;
    }
    if (answer.refused || answer.apart) {
      const words = Object.entries(answer.fields || {}).map(([name, why]) => `${row.labels[name] || name} ${why}`);
      await queue.drop(row.key);
      notice(form, [`Not taken: ${[answer.refused || answer.apart, ...words].join(' ')}`]);
    } else if (await faulty(form, row)) {
      await queue.drop(row.key);
    } else {
      notice(form, [WHY[answer] || WHY.later, link('What this phone holds', '/pocket')]);
      form.reset();
      document.dispatchEvent(new CustomEvent('pocket:kept', { detail: row }));
    }
    plan(await say());
  };

  // A phone that is full sends at once, as any browser would, where somebody hears; else it says so, and what was typed
  // stays in the form.
  const withoutRoom = async (form, button, error) => {
    const heard = await ask('/pocket/standing.json').catch(() => null);
    if (!heard?.ok) {
      notice(form, [`This phone has no room to keep it (${error.name}). Make room, or write it down.`]);
      return;
    }
    if (button?.name) {
      const { name, value } = button;
      form.append(Object.assign(document.createElement('input'), { type: 'hidden', name, value }));
    }
    form.action = actionOf(form, button).href;
    form.submit();
  };

  document.addEventListener('submit', (event) => {
    const form = event.target;
    if (event.defaultPrevented || form.matches('[data-tap], [data-found]')) return;
    const fields = [...new FormData(form)];
    if (form.method.toLowerCase() !== 'post' || !isRecord(actionOf(form, event.submitter), verbOf(form, fields)))
      return;
    event.preventDefault();
    if (form.dataset.sending) return;
    form.dataset.sending = 'yes';
    const button = event.submitter;
    if (button) button.setAttribute('aria-busy', 'true');
    record(form, event.submitter)
      .catch((error) => withoutRoom(form, button, error))
      .finally(() => {
        delete form.dataset.sending;
        button?.removeAttribute('aria-busy');
      });
  });

  // — A page from the phone.
  const clock = (ms) =>
    new Date(ms).toLocaleString(document.documentElement.lang, {
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    });
  const today = () => {
    const now = new Date();
    return new Date(now.getTime() - now.getTimezoneOffset() * 60000).toISOString().slice(0, 10);
  };

  const fromPhone = async () => {
    const at = Number(head('kept'));
    if (!at || head('bench')) return; // a bench says so itself: bench.js
    const line = document.createElement('p');
    line.className = 'from-phone';
    line.setAttribute('role', 'status');
    const missing = head('missing');
    line.append(
      missing
        ? 'No signal, and this page was not taken along. Here is what this phone holds.'
        : `No signal. This page is from this phone, as of ${clock(at)}.`,
    );
    if (new Date(at).toDateString() !== new Date().toDateString())
      line.append(' What it says of “today” was said for that day: look at the weather and the label anew.');
    document.querySelector('main')?.before(line);
    // A day that stood there when the page was taken along is today's now.
    const then = new Date(at - new Date(at).getTimezoneOffset() * 60000).toISOString().slice(0, 10);
    document.querySelectorAll('main input[type=date]').forEach((field) => {
      if (field.value === then && field.defaultValue === then) field.value = today();
    });
    const links = [...document.querySelectorAll('main a[href^="/"]')].slice(0, 400);
    for (const one of links) if (!(await Keep.pages.has(one.href))) one.classList.add('not-along');
  };

  // — A record that is mended: what was typed stands in its form again.
  const refill = async () => {
    const key = new URLSearchParams(location.search).get('mend');
    const row = key && (await Keep.store.get(key));
    if (!row) return;
    const form = [...document.forms].find(
      (one) => new URL(one.action, location.href).pathname === row.to.split('?')[0],
    );
    if (!form) return;
    form.reset();
    row.fields.forEach(([name, value]) => {
      [...form.querySelectorAll(`[name="${CSS.escape(name)}"]`)].forEach((field) => {
        if (['checkbox', 'radio'].includes(field.type)) field.checked ||= field.value === value;
        else if (field.type !== 'file' && name !== 'authenticity_token') field.value = value;
      });
    });
    form.closest('details')?.setAttribute('open', '');
    const words = Object.entries(row.why || {}).map(([name, why]) => `${row.labels?.[name] || name} ${why}.`);
    notice(form, [`Not taken: ${[row.refused, ...words].filter(Boolean).join(' ')} Mend it and send it again.`]);
  };

  // — Leaving takes what was taken along with it; records that nobody sent are asked about first.
  document.addEventListener('submit', async (event) => {
    if (!event.target.matches('form[action="/account/sign-out"]') || event.target.dataset.asked) return;
    event.preventDefault();
    const left = (await (await ready).waiting()).length;
    if (
      left &&
      !confirm(`${count(left, 'record')} on this phone not sent yet. They stay here until you sign in again. Sign out?`)
    )
      return;
    await Keep.empty();
    event.target.dataset.asked = 'yes';
    event.target.submit();
  });

  self.Pocket = { account: ACCOUNT, ready, send, say, ask, alone, count, clock };
  // The page that a phone opens with where nothing was taken along yet.
  const start = async () => {
    if (!navigator.serviceWorker?.controller || head('kept') || (await Keep.pages.has('/pocket'))) return;
    const page = await fetch('/pocket', { headers: { 'X-Along': '1' } });
    if (page.ok && !page.redirected) await Keep.pages.put('/pocket', page, 'start');
  };
  if (navigator.serviceWorker) navigator.serviceWorker.register('/sw.js').then(start, () => {});
  addEventListener('online', () => send({ force: true }));
  document.addEventListener('visibilitychange', () => {
    if (!document.hidden) send();
  });
  fromPhone();
  refill();
  say().then((left) => left.length && send());
})();
