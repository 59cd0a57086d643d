/** For tests of components: what the browser in the tests does not have. */
import { configure } from '@testing-library/react';

/** Modal dialogs, sizes and scrolling, as far as components need them to work. */
export function furnishBrowser(): void {
  // What loads when it is first wanted may take long where the machine does much else.
  configure({ asyncUtilTimeout: 15_000 });
  HTMLDialogElement.prototype.showModal = function showModal() {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close() {
    this.open = false;
    this.dispatchEvent(new Event('close'));
  };
  window.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Element.prototype.scrollTo = () => undefined;
  Element.prototype.scrollIntoView = () => undefined;
  window.matchMedia = (media) =>
    Object.assign(new EventTarget(), {
      matches: false,
      media,
      onchange: null,
      addListener: () => undefined,
      removeListener: () => undefined,
    });
  // Whatever is drawn as far as it is in sight needs a size.
  for (const [side, size] of [
    ['clientHeight', 400],
    ['clientWidth', 900],
  ] as const)
    Object.defineProperty(Element.prototype, side, { configurable: true, value: size });
}
