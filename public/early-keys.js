// Keys typed on the Bench before its script runs are kept here in their order; the Bench obeys them once it does.
(() => {
  const keys = [];
  const keep = (event) => {
    const { target, key } = event;
    if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing || target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement) return;
    if (target !== document.body && !(target instanceof Element && target.closest('[data-row]'))) return;
    if (key.length !== 1 && !['Enter', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Escape', 'Backspace'].includes(key)) return;
    event.preventDefault();
    keys.push(key);
  };
  window.addEventListener('keydown', keep, true);
  window.earlyKeys = () => {
    window.removeEventListener('keydown', keep, true);
    return keys.splice(0);
  };
})();
