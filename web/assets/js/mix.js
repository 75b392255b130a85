// The mix room: a strength typed in any way, a sprayer that fills its rate in, a stopwatch for a thumb.
(() => {
  const set = (field, value) => {
    field.value = value;
    field.dispatchEvent(new Event('change', { bubbles: true }));
  };

  document.addEventListener('change', (event) => {
    const { says, fills } = event.target.dataset;
    if (says) {
      document.getElementById('m-said').value = says;
      set(document.getElementById('f-target'), event.target.value);
    }
    if (fills && event.target.value) set(document.getElementById(fills), event.target.value);
  });

  let began = null;
  let ticking = null;
  document.addEventListener('click', (event) => {
    const watch = event.target.closest('[data-stopwatch]');
    if (!watch) return;
    const seconds = () => ((performance.now() - began) / 1000).toFixed(1);
    if (began === null) {
      began = performance.now();
      ticking = setInterval(() => {
        watch.textContent = `${watch.dataset.stop}: ${seconds()} s`;
      }, 100);
      return;
    }
    clearInterval(ticking);
    const runs = document.getElementById(watch.dataset.stopwatch);
    set(runs, [runs.value.trim(), seconds()].filter(Boolean).join('; '));
    began = null;
    watch.textContent = watch.dataset.start;
  });
})();
