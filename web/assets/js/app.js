// What every page does: CSRF on htmx, keys, tallies, a folded band on phones.
(() => {
  const token = document.querySelector('meta[name="csrf"]').content;
  document.addEventListener('htmx:configRequest', (event) => {
    event.detail.headers['X-CSRF-Token'] = token;
  });
  document.addEventListener('htmx:beforeSwap', (event) => {
    // A form sent back with complaints is still an answer.
    if (event.detail.xhr.status === 422) {
      event.detail.shouldSwap = true;
      event.detail.isError = false;
    }
  });

  // An answer to what a form no longer says is let go, and the form is sent as it stands now: on a slow line nothing is
  // lost that was typed meanwhile.
  const asked = new WeakMap();
  const says = (form) => new URLSearchParams(new FormData(form)).toString();
  document.addEventListener('htmx:beforeSend', ({ detail }) => {
    const form = detail.elt;
    if (form.matches('form') && detail.requestConfig.verb === 'get') asked.set(detail.xhr, says(form));
  });
  document.addEventListener('htmx:beforeSwap', ({ detail }) => {
    const form = detail.requestConfig.elt;
    if (!asked.has(detail.xhr) || !form.isConnected || asked.get(detail.xhr) === says(form)) return;
    detail.shouldSwap = false;
    htmx.trigger(form, 'change');
  });

  // A wide table is a card a row on a phone: each cell bears its column's name.
  const cards = () =>
    document.querySelectorAll('main table.list:not(.cards, .attendance, .hours)').forEach((table) => {
      const heads = [...table.querySelectorAll('thead th')].map((head) => head.textContent.trim());
      if (heads.length < 4) return;
      table.querySelectorAll('tbody tr').forEach((row) =>
        [...row.cells].forEach((cell, n) => {
          if (cell.matches('td') && heads[n]) cell.dataset.label = heads[n];
        }),
      );
      table.classList.add('cards');
    });
  document.addEventListener('DOMContentLoaded', cards);
  document.addEventListener('htmx:afterSettle', cards);

  // After a swap the field that had the keyboard keeps it, and what was opened stays open.
  let held = null;
  let opened = [];
  const name = (details) =>
    details.id || `${details.closest('article, section')?.querySelector('h3, h2')?.textContent} ${details.className}`;
  const remember = () => {
    opened = [...document.querySelectorAll('main details[open]')].map(name);
    const at = document.activeElement;
    held = at && at.name ? { name: at.name, value: at.value } : null;
  };
  document.addEventListener('htmx:beforeSwap', remember);
  document.addEventListener('bench:before', remember); // a phone's own answer (bench.js)
  document.addEventListener('htmx:afterSettle', () => {
    document.querySelectorAll('main details.why, main details.look-group').forEach((details) => {
      if (opened.includes(name(details))) details.open = true;
    });
    if (!held) return;
    const same = [...document.getElementsByName(held.name)];
    const at = same.find((field) => field.value === held.value) || same[0];
    if (at && at !== document.activeElement) at.focus({ preventScroll: true });
  });

  const keys = document.getElementById('keys');
  document.addEventListener('keydown', (event) => {
    if (
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      event.target.closest('input:not([type=radio]):not([type=checkbox]), textarea, select')
    )
      return;
    const room = document.querySelector(`.rooms [data-key="${CSS.escape(event.key)}"]`);
    if (room) {
      room.click();
      return;
    }
    if (event.key === '/') {
      event.preventDefault();
      document.getElementById('find').focus();
    }
    if (event.key === 'n') location.href = '/survey#patch-form';
    if (event.key === '?') keys.showModal();
  });
  if (location.hash === '#patch-form') document.getElementById('patch-form')?.setAttribute('open', '');

  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-print]')) {
      window.print();
      return;
    }
    const step = event.target.closest('[data-step]');
    if (!step) return;
    const field = document.getElementById(step.dataset.for);
    field.value = Math.max(0, (parseInt(field.value, 10) || 0) + Number(step.dataset.step));
    field.dispatchEvent(new Event('change', { bubbles: true }));
  });

  // A file that the server would turn away is told so before it travels.
  document.addEventListener('change', (event) => {
    const { files, dataset } = event.target;
    if (!files || !dataset.mostMb) return;
    const large = [...files].find((file) => file.size > dataset.mostMb * 1048576);
    event.target.setCustomValidity(
      large ? `“${large.name}” is ${Math.round(large.size / 1048576)} MB; ${dataset.mostMb} MB is the most.` : '',
    );
    event.target.reportValidity();
  });

  // A slider says its number at once; what it means comes from the server.
  document.addEventListener('input', (event) => {
    const output = event.target.dataset.shows && document.getElementById(event.target.dataset.shows);
    if (output) output.value = event.target.value;
  });

  // A form sent along with another's fields: the weights that are shown are the ones that are kept.
  document.addEventListener('submit', (event) => {
    const from = event.submitter && document.getElementById(event.submitter.dataset.carry);
    if (!from) return;
    for (const [key, value] of new FormData(from)) {
      const field = Object.assign(document.createElement('input'), { type: 'hidden', name: key, value });
      event.target.append(field);
    }
  });

  // The year is folded on a phone, and everywhere as somebody left it.
  const year = document.querySelector('.band-fold');
  const left = document.cookie.includes('band=');
  if (!left && matchMedia('(max-width: 767px)').matches) year?.removeAttribute('open');
  year?.querySelector('summary').addEventListener('click', () => {
    document.cookie = `band=${year.open ? 'shut' : 'open'}; path=/; max-age=31536000; samesite=lax`;
  });
  document
    .querySelectorAll('.rooms [aria-current], .ways [aria-current]')
    .forEach((here) => here.scrollIntoView({ block: 'nearest', inline: 'center' }));
})();
