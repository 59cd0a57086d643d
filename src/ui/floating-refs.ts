/** Where what floats hangs on to, and what floats: to be handed over as refs. */
export interface FloatingRefs {
  anchor: (node: Element | null) => void;
  panel: (node: HTMLElement | null) => void;
}

/** The two refs of a floating panel; they are made to be handed over, which their type does not say. */
export function floatingRefs(refs: object): FloatingRefs {
  const made = refs as { setReference: FloatingRefs['anchor']; setFloating: FloatingRefs['panel'] };
  return { anchor: made.setReference, panel: made.setFloating };
}
