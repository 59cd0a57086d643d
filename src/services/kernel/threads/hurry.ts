/** Raised while there is anything that somebody waits for; background threads look at it. */
export const urgent = new SharedArrayBuffer(4);

/** Somebody waits for something from now on. */
export const hurry = (): void => {
  Atomics.add(new Int32Array(urgent), 0, 1);
};

/** That somebody waits no longer, or for nothing but a background thread. */
export function noHurry(): void {
  const all = new Int32Array(urgent);
  if (Atomics.sub(all, 0, 1) === 1) Atomics.notify(all, 0);
}
