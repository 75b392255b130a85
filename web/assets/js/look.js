// Pictures of one place: two of them under one handle, and a camera with the last picture faint over what it sees.
(() => {
  document.addEventListener('input', (event) => {
    const slid = event.target.closest('[data-slid]');
    if (slid) slid.style.setProperty('--seen', `${event.target.value}%`);
  });

  const say = (box, words) => {
    let line = box.querySelector('.said');
    if (!line) box.append((line = Object.assign(document.createElement('p'), { className: 'said small' })));
    line.textContent = words;
  };

  // The camera's picture goes into the field as if it had been chosen there.
  const take = (box, video, stream) => {
    const canvas = Object.assign(document.createElement('canvas'), {
      width: video.videoWidth,
      height: video.videoHeight,
    });
    canvas.getContext('2d').drawImage(video, 0, 0);
    canvas.toBlob(
      (blob) => {
        const files = new DataTransfer();
        files.items.add(new File([blob], 'look.jpg', { type: 'image/jpeg', lastModified: Date.now() }));
        box.querySelector('input[type=file]').files = files.files;
        stream.getTracks().forEach((track) => track.stop());
        box.querySelector('.camera').remove();
        say(box, 'The picture is taken. It is kept with the check.');
      },
      'image/jpeg',
      0.88,
    );
  };

  const open = async (box) => {
    let stream;
    try {
      stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment', width: 1600 } });
    } catch {
      return say(box, 'This phone did not open its camera here. Take the picture with the field above.');
    }
    const camera = Object.assign(document.createElement('div'), { className: 'camera' });
    const video = Object.assign(document.createElement('video'), {
      autoplay: true,
      playsInline: true,
      muted: true,
      srcObject: stream,
    });
    const ghost = Object.assign(document.createElement('img'), {
      src: box.dataset.before,
      alt: 'The last picture, faint',
    });
    const press = Object.assign(document.createElement('button'), {
      type: 'button',
      className: 'btn btn-primary btn-field',
      textContent: 'Take it',
    });
    press.addEventListener('click', () => take(box, video, stream));
    camera.append(video, ghost, press);
    box.append(camera);
    return camera;
  };

  const offer = () =>
    document.querySelectorAll('[data-before]').forEach((box) => {
      if (box.querySelector('.with-ghost') || !navigator.mediaDevices) return;
      const button = Object.assign(document.createElement('button'), {
        type: 'button',
        className: 'btn btn-outline-primary with-ghost',
        textContent: 'Line it up with the last one',
      });
      button.addEventListener('click', () => open(box));
      box.append(button);
    });
  offer();
  document.addEventListener('htmx:afterSettle', offer);
})();
