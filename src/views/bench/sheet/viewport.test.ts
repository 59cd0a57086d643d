import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { AwayRows, NearRows } from './viewport';

/** What watches elements in a browser, moved by hand. */
class Watcher {
  static made: Watcher[] = [];
  readonly watched = new Set<Element>();
  constructor(
    private readonly told: (entries: { isIntersecting: boolean; target: Element }[]) => void,
    readonly options: IntersectionObserverInit,
  ) {
    Watcher.made.push(this);
  }
  observe(element: Element) {
    this.watched.add(element);
  }
  unobserve(element: Element) {
    this.watched.delete(element);
  }
  /** Tells of those that are still watched. */
  tell(isIntersecting: boolean, ...elements: Element[]) {
    this.told(
      elements.filter((each) => this.watched.has(each)).map((target) => ({ isIntersecting, target })),
    );
  }
}
const element = () => new EventTarget() as HTMLElement;
const skipped = (yes: boolean) =>
  Object.assign(new Event('contentvisibilityautostatechange'), { skipped: yes });

beforeEach(() => {
  Watcher.made = [];
  vi.stubGlobal('IntersectionObserver', Watcher);
});
afterEach(() => {
  vi.unstubAllGlobals();
});

describe('rows of a long sheet', () => {
  function sheet() {
    const root = { current: element() };
    const near = new NearRows(root);
    const told: string[] = [];
    const watch = (...rows: string[]) => {
      const group = element();
      return { group, stop: near.watch(rows, group, () => told.push(rows.join())) };
    };
    return { root, near, told, watch };
  }

  test('are told of once, when their group comes near, and stay', () => {
    const { root, near, told, watch } = sheet();
    const [one, two] = [watch('a', 'b'), watch('c')];
    const [watcher] = Watcher.made;
    expect(Watcher.made).toHaveLength(1);
    expect(watcher?.options.root).toBe(root.current);
    watcher?.tell(false, one.group, two.group);
    expect([told, near.has('a'), near.has('c')]).toEqual([[], false, false]);
    watcher?.tell(true, one.group);
    watcher?.tell(false, one.group);
    watcher?.tell(true, one.group);
    expect([told, near.has('a'), near.has('b'), near.has('c')]).toEqual([['a,b'], true, true, false]);
  });

  test('come with their group when one goes to them, wherever they are', () => {
    const { near, told, watch } = sheet();
    const [one, two] = [watch('a', 'b'), watch('c', 'd')];
    near.call('d');
    expect(told).toEqual(['c,d']);
    near.call('c');
    Watcher.made[0]?.tell(true, two.group);
    expect(told).toEqual(['c,d']);
    // In a section that is opened for it, so that its group is there only afterwards.
    near.call('e');
    expect(near.has('e')).toBe(true);
    Watcher.made[0]?.tell(true, one.group);
    expect(told).toEqual(['c,d', 'a,b']);
  });

  test('that are taken away are told of no more', () => {
    const { near, told, watch } = sheet();
    const { group, stop } = watch('a');
    stop();
    Watcher.made[0]?.tell(true, group);
    near.call('a');
    expect(told).toEqual([]);
    expect(Watcher.made[0]?.watched.size).toBe(0);
  });
});

describe('rows out of sight', () => {
  test('are those that the browser skips, together where it skips them together', () => {
    const away = new AwayRows();
    const [row, group] = [element(), element()];
    const [stopRow, stopGroup] = [away.watch(row, ['a']), away.watch(group, ['b', 'c'])];
    const now = () => ['a', 'b', 'c'].filter((each) => away.has(each)).join('');
    expect(now()).toBe('');
    group.dispatchEvent(skipped(true));
    expect(now()).toBe('bc');
    row.dispatchEvent(skipped(true));
    group.dispatchEvent(skipped(false));
    expect(now()).toBe('a');
    group.dispatchEvent(skipped(true));
    // Whoever goes is not out of sight for ever.
    stopRow();
    stopGroup();
    expect(now()).toBe('');
    group.dispatchEvent(skipped(true));
    expect(now()).toBe('');
  });
});
