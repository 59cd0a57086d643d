// Keys typed on the Bench, and what is pasted onto it, before its script runs are kept here in their order;
// the Bench obeys them once it does.
(() => {
  const keys = [];
  const named = [
    'Enter',
    'ArrowLeft',
    'ArrowRight',
    'ArrowUp',
    'ArrowDown',
    'Escape',
    'Backspace',
    'Delete',
    'F1',
    'F2',
    'F3',
    'F4',
    'F6',
    'F7',
    'F8',
    'F9',
  ];
  const isField = (target) =>
    target instanceof HTMLInputElement ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement;
  const keep = (event) => {
    const { target, key } = event;
    if (event.altKey || event.isComposing || isField(target)) return;
    if (target !== document.body && !(target instanceof Element && target.closest('[data-row]'))) return;
    const command = event.ctrlKey || event.metaKey;
    // Behind keys that wait, the keyboard must not move on by itself either.
    if (
      command
        ? !['Enter', 'z', 'Z', 's'].includes(key)
        : key === 'Tab'
          ? keys.length === 0
          : key.length !== 1 && !named.includes(key)
    )
      return;
    event.preventDefault();
    keys.push({ key, command, shift: event.shiftKey });
  };
  const keepPasted = (event) => {
    const pasted = event.clipboardData?.getData('text') ?? '';
    if (isField(event.target) || pasted.trim() === '') return;
    event.preventDefault();
    keys.push({ pasted });
  };
  window.addEventListener('keydown', keep, true);
  window.addEventListener('paste', keepPasted, true);
  window.earlyKeys = () => {
    window.removeEventListener('keydown', keep, true);
    window.removeEventListener('paste', keepPasted, true);
    return keys.splice(0);
  };
})();
