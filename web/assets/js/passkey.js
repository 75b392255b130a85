// Forms that ask a passkey: data-passkey says whether one is made or shown, data-options what the door wants of it.
'use strict';

(() => {
  const packed = (buffer) =>
    btoa(String.fromCharCode(...new Uint8Array(buffer)))
      .replaceAll('+', '-')
      .replaceAll('/', '_')
      .replaceAll('=', '');
  const unpacked = (text) =>
    Uint8Array.from(atob(text.replaceAll('-', '+').replaceAll('_', '/')), (letter) => letter.charCodeAt(0));

  const wanted = (options) => {
    options.challenge = unpacked(options.challenge);
    if (options.user) options.user.id = unpacked(options.user.id);
    for (const list of [options.allowCredentials, options.excludeCredentials])
      for (const one of list ?? []) one.id = unpacked(one.id);
    return options;
  };

  const ANSWERED = ['attestationObject', 'authenticatorData', 'clientDataJSON', 'signature', 'userHandle'];
  const told = (credential) => {
    const id = packed(credential.rawId);
    const given = ANSWERED.filter((name) => credential.response[name]);
    const response = Object.fromEntries(given.map((name) => [name, packed(credential.response[name])]));
    return JSON.stringify({ type: credential.type, id, rawId: id, response });
  };

  const fault = (form, words) => {
    const box = form.querySelector('[data-passkey-fault]');
    box.hidden = false;
    box.firstElementChild.textContent = words;
  };

  for (const form of document.querySelectorAll('form[data-passkey]')) {
    const way = form.dataset.passkey;
    form.addEventListener('submit', async (event) => {
      event.preventDefault();
      if (!navigator.credentials || !window.PublicKeyCredential)
        return fault(form, 'This browser has no passkeys. Use your password.');
      try {
        const publicKey = wanted(JSON.parse(form.dataset.options));
        const credential = await navigator.credentials[way]({ publicKey });
        form.querySelector('[data-passkey-answer]').value = told(credential);
        form.submit();
      } catch {
        fault(
          form,
          way === 'create'
            ? 'No passkey was made. Try again, or keep your password.'
            : 'No passkey of this site was shown. Try again, or use your password.',
        );
      }
    });
  }
})();
