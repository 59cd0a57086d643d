import type { Room } from '../shell/room';

/** A build in the making; entered from a quote. */
export const bench: Room = {
  id: 'bench',
  keys: [
    ['n', 'keys.next'],
    ['p', 'keys.previous'],
    ['/  F3', 'keys.find'],
    ['A … Z', 'keys.type'],
    ['← →', 'keys.move'],
    ['↑ ↓', 'keys.step'],
    ['Enter', 'keys.take'],
    ['1 – 9', 'keys.wayOut'],
    ['F1', 'keys.helpRow'],
    ['F2', 'keys.whyKey'],
    ['F4', 'keys.keep'],
    ['F6', 'keys.fold'],
    ['F7', 'keys.variantsKey'],
    ['[ ]', 'keys.otherVariant'],
    ['F8', 'keys.bestKey'],
    ['F9', 'keys.units'],
    ['Ctrl V', 'keys.paste'],
    ['Ctrl Z', 'keys.undo'],
    ['Ctrl ⇧ Z', 'keys.redo'],
    ['Ctrl Enter', 'keys.put'],
    ['Esc', 'keys.leave'],
  ],
  texts: ['bench'],
};
