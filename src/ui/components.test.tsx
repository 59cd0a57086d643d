// @vitest-environment jsdom
/** Components by keyboard and by hand, as somebody uses them who does not see them too. */
import { act, cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import * as ui from '.';
import { gallery } from './gallery/Gallery';
import { furnishBrowser } from './testing';

beforeAll(furnishBrowser);
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** Shows a state of the gallery. */
function show(component: string, name: string) {
  const example = gallery[component]?.find((each) => each.name === name);
  if (!example) throw new Error(`${component} has no state “${name}”`);
  const Shown = example.shown;
  return { ...render(<Shown />), user: userEvent.setup() };
}

describe('the gallery', () => {
  it('shows every component there is, in states of different names', () => {
    const components = Object.keys(ui).filter((name) => /^[A-Z]/.test(name) && name !== 'DialogFoot');
    // A menu, a day, a grid and a field for formulas bring more script along, and are fetched where they are needed.
    expect(Object.keys(gallery).sort()).toEqual(
      [...components, 'CodeField', 'DateField', 'Grid', 'Menu'].sort(),
    );
    for (const states of Object.values(gallery))
      expect(new Set(states.map(({ name }) => name)).size).toBe(states.length);
  });

  it.each(Object.entries(gallery).flatMap(([of, states]) => states.map(({ name }) => [of, name] as const)))(
    '%s, %s: can be drawn, and what can be pressed has a name',
    (component, name) => {
      show(component, name);
      for (const button of screen.queryAllByRole('button'))
        expect(button.getAttribute('aria-label') ?? button.textContent).not.toBe('');
      for (const field of document.querySelectorAll('input, select'))
        expect(
          field.getAttribute('aria-label') ?? document.querySelector(`label[for="${field.id}"]`)?.textContent,
        ).toBeTruthy();
    },
  );
});

describe('a field', () => {
  it('is found by its label, and what is wrong with it is announced as its description', () => {
    show('Field', 'wrong');
    const field = screen.getByLabelText('Discount');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    const said = screen.getByRole('alert');
    expect([said.textContent, field.getAttribute('aria-describedby')]).toEqual(['At most 100 %.', said.id]);
  });

  it('tells its hint until something is wrong', () => {
    show('Field', 'with a hint');
    const field = screen.getByLabelText('Discount');
    expect(document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent).toBe(
      '10 or 10 %',
    );
    expect(screen.queryByRole('alert')).toBeNull();
  });
});

describe('a list of proposals', () => {
  const options = () => screen.getAllByRole('option').map((each) => each.textContent);

  it('opens with typing, is gone through with arrows, and Enter chooses', async () => {
    const { user } = show('Combobox', 'type, move, choose');
    const field = screen.getByRole('combobox');
    await user.type(field, 'deck');
    expect(options()).toEqual(['Steel deckRB-DECK-P', 'Grid deckRB-DECK-G']);
    expect(field.getAttribute('aria-activedescendant')).toBe(screen.getAllByRole('option')[0]?.id);
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(field.getAttribute('aria-activedescendant')).toBe(screen.getAllByRole('option')[1]?.id);
    await user.keyboard('{Enter}');
    expect(screen.getByRole('status').textContent).toBe('Grid deck');
    expect(screen.queryByRole('listbox')).toBeNull();
    expect(field.getAttribute('aria-expanded')).toBe('false');
  });

  it('says that nothing is found; Escape closes it, and goes no further', async () => {
    const heard = vi.fn();
    document.addEventListener('keydown', heard);
    const { user } = show('Combobox', 'type, move, choose');
    await user.type(screen.getByRole('combobox'), 'x');
    expect(screen.getByRole('listbox').textContent).toBe('Nothing is called that.');
    heard.mockClear();
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('listbox')).toBeNull();
    expect(heard).not.toHaveBeenCalled();
    // Once closed it is nobody's any more.
    await user.keyboard('{Escape}');
    expect(heard).toHaveBeenCalledTimes(1);
    document.removeEventListener('keydown', heard);
  });

  it('leaves Enter to the form where what is typed counts, until an arrow is pressed', async () => {
    const { user } = show('Combobox', 'what is typed counts');
    await user.type(screen.getByRole('combobox'), 'deck{Enter}');
    expect(screen.getByRole('status').textContent).toBe('');
    await user.keyboard('{ArrowDown}{Enter}');
    expect(screen.getByRole('status').textContent).toBe('Steel deck');
  });

  it('takes the first of what is found, where Enter came before it was', async () => {
    const chosen = vi.fn();
    function Late() {
      const [found, setFound] = useState<ui.ComboOption[]>();
      const [text, setText] = useState('');
      return (
        <>
          <ui.Combobox
            label="Part"
            placeholder=""
            text={text}
            options={found ?? []}
            none="Nothing."
            looking={found ? undefined : 'Looking …'}
            onText={setText}
            onChoose={chosen}
          />
          <button type="button" onClick={() => setFound([{ id: 'a', text: 'Deck', detail: '' }])}>
            arrive
          </button>
        </>
      );
    }
    render(<Late />);
    const user = userEvent.setup();
    await user.type(screen.getByRole('combobox'), 'deck{Enter}');
    expect(chosen).not.toHaveBeenCalled();
    act(() => screen.getByText('arrive').click());
    await waitFor(() =>
      expect(chosen).toHaveBeenCalledExactlyOnceWith({ id: 'a', text: 'Deck', detail: '' }),
    );
    // It was wanted once.
    act(() => screen.getByText('arrive').click());
    await act(() => Promise.resolve());
    expect(chosen).toHaveBeenCalledTimes(1);
  });
});

describe('a table', () => {
  const numbers = () =>
    within(screen.getByRole('table'))
      .getAllByRole('row')
      .slice(1)
      .map((row) => row.querySelector('td')?.textContent ?? '')
      .filter((text) => text !== '');

  it('sorts by a column up, down and not at all, and says so', async () => {
    const { user } = show('DataTable', 'a few rows');
    const before = numbers();
    const head = () => screen.getAllByRole('columnheader')[0] as HTMLElement;
    const sorts: (string | null)[] = [];
    const orders: string[][] = [];
    for (let press = 0; press < 3; press++) {
      await user.click(screen.getByRole('button', { name: 'Number' }));
      sorts.push(head().getAttribute('aria-sort'));
      orders.push(numbers());
    }
    expect(sorts).toEqual(['ascending', 'descending', null]);
    expect(orders).toEqual([[...before].sort(), [...before].sort().reverse(), before]);
  });

  it('draws a few dozen of 20,000 rows, and tells how many there are', () => {
    show('DataTable', '20,000 rows');
    expect(numbers().length).toBeLessThan(80);
    expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('20001');
  });

  it('says what is missing where there is nothing', () => {
    show('DataTable', 'nothing');
    expect(screen.queryByRole('table')).toBeNull();
    expect(screen.getByText('No parts yet.')).toBeTruthy();
  });
});

describe('a day', () => {
  const field = () => screen.getByLabelText<HTMLInputElement>('Delivery');

  it.each([
    ['24.12.2026', '2026-12-24'],
    ['2026-03-01', '2026-03-01'],
  ])('is typed as %s', async (typed, day) => {
    const { user } = show('DateField', 'a day');
    await user.clear(field());
    await user.type(field(), `${typed}{Enter}`);
    await waitFor(() => expect(field().value).toBe(day));
  });

  it('stays as typed with a sentence where it is none; Escape brings back what it was', async () => {
    const { user } = show('DateField', 'a day');
    await user.clear(field());
    await user.type(field(), 'soon{Enter}');
    expect((await screen.findByRole('alert')).textContent).toBe('“soon” is no day.');
    expect([field().value, field().getAttribute('aria-invalid')]).toEqual(['soon', 'true']);
    await user.keyboard('{Escape}');
    expect([field().value, screen.queryByRole('alert')]).toEqual(['2026-11-28', null]);
  });

  it('is taken away by emptying the field', async () => {
    const { user } = show('DateField', 'a day');
    await user.clear(field());
    await user.tab();
    await waitFor(() => expect(field().value).toBe(''));
  });

  it('cannot be picked where it is fixed', () => {
    show('DateField', 'fixed');
    expect([field().disabled, screen.queryByRole('button')]).toEqual([true, null]);
  });
});

describe('a dialog', () => {
  it('begins in its first field, has its title for a name, and shows nothing once closed', async () => {
    const { user } = show('Dialog', 'opened by a button');
    await user.click(screen.getByText('Open the dialog'));
    expect(screen.getByRole('dialog', { name: 'Keep the build' })).toBeTruthy();
    expect(document.activeElement).toBe(screen.getByLabelText('Name'));
    await user.type(screen.getByLabelText('Name'), 'Quarry gate');
    await user.click(screen.getByText('Cancel'));
    expect(screen.queryByLabelText('Name')).toBeNull();
    // Opened again it is as new.
    await user.click(screen.getByText('Open the dialog'));
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('');
    await user.click(screen.getByRole('button', { name: 'Close' }));
    expect(screen.queryByRole('dialog')).toBeNull();
  });
});

describe('a menu', () => {
  it('is opened and gone through by keys, does one thing, and closes', async () => {
    const { user } = show('Menu', 'things to do');
    screen.getByRole('button', { name: 'More' }).focus();
    await user.keyboard('{Enter}');
    const items = await screen.findAllByRole('menuitem');
    expect(items.map((each) => each.textContent)).toEqual(['Copy', 'Remove', 'As a sheet']);
    await waitFor(() => expect(document.activeElement?.closest('[role=menu]')).not.toBeNull());
    await user.click(items[1] as HTMLElement);
    expect(screen.getByRole('status').textContent).toBe('removed');
    expect(screen.queryByRole('menu')).toBeNull();
  });

  it('closes with Escape, and nothing is done', async () => {
    const { user } = show('Menu', 'things to do');
    await user.click(screen.getByRole('button', { name: 'More' }));
    await screen.findByRole('menu');
    await user.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('menu')).toBeNull());
    expect(screen.getByRole('status').textContent).toBe('');
  });
});

describe('tabs', () => {
  it('are one stop, and arrows go around', async () => {
    const { user } = show('Tabs', 'of one panel');
    await user.tab();
    expect(document.activeElement?.textContent).toBe('Parts');
    const panels: string[] = [];
    for (const key of ['{ArrowRight}', '{ArrowRight}', '{ArrowRight}', '{ArrowLeft}']) {
      await user.keyboard(key);
      panels.push(screen.getByRole('tabpanel').textContent);
    }
    expect(panels).toEqual(['lead', 'why', 'parts', 'why']);
    expect(screen.getAllByRole('tab').filter((tab) => tab.tabIndex === 0)).toHaveLength(1);
    expect(screen.getByRole('tab', { selected: true }).textContent).toBe('Why');
  });
});

describe('what is said at the corner', () => {
  it('is announced, stands for a while, and at most three at once', () => {
    vi.useFakeTimers();
    render(<ui.Toaster />);
    act(() => {
      for (const text of ['one', 'two', 'three', 'four']) ui.say(text);
    });
    const said = () => [...screen.getByRole('status').children].map((each) => each.textContent);
    expect(said()).toEqual(['two', 'three', 'four']);
    act(() => {
      vi.advanceTimersByTime(5_900);
    });
    expect(said()).toHaveLength(3);
    act(() => {
      vi.advanceTimersByTime(200);
    });
    expect(said()).toEqual([]);
  });
});
