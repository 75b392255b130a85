// The replant room: a plant of a bed is taken by the finger or the mouse and put elsewhere.
(() => {
  const token = () => document.querySelector('meta[name="csrf"]').content;
  const beds = new WeakMap();

  // The plan behind a figure, asked for once.
  const planOf = (figure) => {
    if (!beds.has(figure))
      beds.set(
        figure,
        fetch(`${figure.dataset.bed}.json`).then((answer) => answer.json()),
      );
    return beds.get(figure);
  };

  const place = (svg, event) => {
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    return [at.x + Number(svg.dataset.west), Number(svg.dataset.north) - at.y];
  };

  const ring = (svg) => {
    const circle = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
    circle.setAttribute('class', 'held');
    const wide = svg.viewBox.baseVal.width;
    circle.setAttribute('r', wide / 60);
    circle.setAttribute('stroke-width', wide / 200);
    svg.append(circle);
    return circle;
  };

  const show = (svg, circle, [x, y]) => {
    circle.setAttribute('cx', x - Number(svg.dataset.west));
    circle.setAttribute('cy', Number(svg.dataset.north) - y);
  };

  const say = (words) => {
    document.getElementById('bed-said').textContent = words;
  };

  const put = async (figure, plan, number, [x, y]) => {
    const body = new URLSearchParams({ x: x.toFixed(2), y: y.toFixed(2), version: plan.version });
    const answer = await fetch(`${figure.dataset.bed}/plants/${number}`, {
      method: 'POST',
      body,
      headers: { 'X-CSRF-Token': token() },
    }).catch(() => null);
    if (answer && answer.ok) return window.location.reload();
    return say(
      answer && answer.status === 409
        ? 'Somebody laid this bed out anew meanwhile: load the page again.'
        : 'That could not be kept. Try again.',
    );
  };

  document.addEventListener('pointerdown', async (event) => {
    const figure = event.target.closest('[data-bed]');
    const svg = figure && event.target.closest('svg');
    if (!svg) return;
    const start = place(svg, event);
    const near = svg.viewBox.baseVal.width / 40;
    let here = start;
    let held = null;
    let ended = false;
    const move = (at) => {
      here = place(svg, at);
      if (held) {
        at.preventDefault();
        show(svg, held.circle, here);
      }
    };
    const end = () => {
      ended = true;
      svg.removeEventListener('pointermove', move);
      if (!held) return;
      held.circle.remove();
      if (Math.hypot(here[0] - start[0], here[1] - start[1]) > near / 8) put(figure, held.plan, held.number, here);
    };
    svg.addEventListener('pointermove', move);
    window.addEventListener('pointerup', end, { once: true });
    const plan = await planOf(figure);
    const far = ([x, y]) => Math.hypot(x - start[0], y - start[1]);
    const number = plan.bed.plants.reduce((best, plant, n) => (far(plant) < far(plan.bed.plants[best]) ? n : best), 0);
    if (far(plan.bed.plants[number]) > near) return;
    held = { plan, number, circle: ring(svg) };
    show(svg, held.circle, here);
    if (ended) end();
  });
})();
