// A PIN before what this phone holds: no lock of its own strength, but a closed door for whoever picks the phone up. Its
// digest is kept, never itself; ten wrong ones and what was taken along is gone (records that nobody sent stay).
(() => {
  const ROUNDS = 200_000;
  const TRIES = 10;
  const OPEN = 15 * 60e3; // ms that it stays open while it is used

  const bytes = (hex) => Uint8Array.from(hex.match(/../g), (pair) => parseInt(pair, 16));
  const hex = (buffer) => [...new Uint8Array(buffer)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  const digest = async (pin, salt) => {
    const key = await crypto.subtle.importKey('raw', new TextEncoder().encode(pin), 'PBKDF2', false, ['deriveBits']);
    const how = { name: 'PBKDF2', hash: 'SHA-256', salt: bytes(salt), iterations: ROUNDS };
    return hex(await crypto.subtle.deriveBits(how, key, 256));
  };

  // Sets a PIN; '' takes it away.
  const set = async (pin) => {
    if (!pin) return Keep.store.setMeta('pin', null);
    const salt = hex(crypto.getRandomValues(new Uint8Array(16)));
    return Keep.store.setMeta('pin', { salt, digest: await digest(pin, salt), tries: 0, opened: Date.now() });
  };

  // Opens with a PIN: 'open', 'wrong', or 'gone' once there were too many.
  const open = async (pin) => {
    const kept = await Keep.store.meta('pin');
    if (!kept) return 'open';
    if ((await digest(pin, kept.salt)) === kept.digest) {
      await Keep.store.setMeta('pin', { ...kept, tries: 0, opened: Date.now() });
      return 'open';
    }
    await Keep.store.setMeta('pin', { ...kept, tries: kept.tries + 1 });
    if (kept.tries + 1 < TRIES) return 'wrong';
    await Keep.empty();
    return 'gone';
  };

  // Is it asked for now? While it is used it stays open.
  const shut = async () => {
    const kept = await Keep.store.meta('pin');
    if (!kept) return false;
    if (Date.now() - kept.opened > OPEN) return true;
    await Keep.store.setMeta('pin', { ...kept, opened: Date.now() });
    return false;
  };

  self.Pin = { set, open, shut };

  const form = self.document?.querySelector('form[data-pin]');
  form?.addEventListener('submit', async (event) => {
    event.preventDefault();
    const said = form.querySelector('[role=alert]');
    const answer = await open(form.elements.pin.value);
    if (answer === 'open') location.reload();
    else
      said.textContent =
        answer === 'gone'
          ? 'Too many wrong PINs. What was taken along is gone; records that were not sent are still here.'
          : 'That is not the PIN.';
  });
})();
