// @vitest-environment jsdom
/** The rows of the sheet by keyboard and by typing, over a real build that answers at once. */
import { act, cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useMemo, useState } from 'react';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { demoModel } from '../../../../scripts/demo-documents';
import { createEngine, type Decision, type Target } from '../../../core/engine';
import { generatedModel } from '../../../core/engine/testing/generated-models';
import { compileModel, outlineOf, type CompiledModel } from '../../../core/model';
import { translator } from '../../../i18n';
import { furnishBrowser } from '../../../ui/testing';
import { Speech } from '../../speech';
import { Words } from '../words';
import { RowControl } from './Row';

beforeAll(furnishBrowser);
afterEach(cleanup);

/** Features of more options than stand side by side. */
function manyOptions(): CompiledModel {
  const compiled = compileModel(generatedModel({ features: 4, options: 64, rules: 4, seed: 7 }));
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return compiled.model;
}
const models = {
  ridgeback: demoModel('ridgeback'),
  plumb: demoModel('plumb'),
  quarryGate: demoModel('quarryGate'),
  many: manyOptions(),
};
const context = { date: '2026-11-28', values: { region: 'eu' } };
const engines = Object.fromEntries(
  Object.entries(models).map(([id, model]) => [id, createEngine(model, context)]),
);

interface Seen {
  decisions: readonly Decision[];
  asked: Target[];
  considered: Decision[];
}

/** A row of a model that is decided on as on the Bench; what was done is told. */
function Live({
  of,
  row,
  start = [],
  frozen = false,
  folded = false,
  units = 'metric',
  onMade,
  onConsider,
  onWhy,
}: {
  of: keyof typeof models;
  row: string;
  start?: readonly Decision[];
  frozen?: boolean;
  folded?: boolean;
  units?: 'metric' | 'imperial';
  onMade: (decisions: readonly Decision[]) => void;
  onConsider: (decision: Decision) => void;
  onWhy: (target: Target) => void;
}) {
  const [decisions, setDecisions] = useState<readonly Decision[]>(start);
  const outline = useMemo(() => outlineOf(models[of]), [of]);
  const words = useMemo(() => new Words(outline, translator('en'), 'en', units), [outline, units]);
  const state = useMemo(() => engines[of]?.state({ decisions }).rows[row], [of, row, decisions]);
  const others = (on: string) => decisions.filter((each) => each.on !== on);
  const take = (next: readonly Decision[]) => {
    onMade(next);
    setDecisions(next);
  };
  if (!state) return null;
  return (
    <RowControl
      feature={outline.features.find(({ id }) => id === row)}
      parameter={outline.parameters.find(({ id }) => id === row)}
      state={state}
      words={words}
      differences={{}}
      remarks={{}}
      decimals={2}
      frozen={frozen}
      folded={folded}
      facts={{}}
      advice={undefined}
      onDecide={(decision) => take([...others(decision.on), decision])}
      onConsider={onConsider}
      onRelease={(on) => take(others(on))}
      onWhy={onWhy}
      onAnew={() => undefined}
    />
  );
}

function show(props: Omit<Parameters<typeof Live>[0], 'onMade' | 'onConsider' | 'onWhy'>) {
  const seen: Seen = { decisions: props.start ?? [], asked: [], considered: [] };
  render(
    <Speech language="en">
      <Live
        {...props}
        onMade={(decisions) => {
          seen.decisions = decisions;
        }}
        onConsider={(decision) => seen.considered.push(decision)}
        onWhy={(target) => seen.asked.push(target)}
      />
    </Speech>,
  );
  return { seen, user: userEvent.setup() };
}
const feature = (of: keyof typeof models, id: string) => {
  const found = models[of].document.features.find((each) => each.id === id);
  if (!found) throw new Error(`${of} has no ${id}`);
  return found;
};

describe('options side by side', () => {
  it('are taken with a key, and taken back where they are the person’s', async () => {
    const { seen, user } = show({ of: 'ridgeback', row: 'vehicle' });
    const tabs = () => [...document.querySelectorAll<HTMLElement>('[data-tab]')];
    const options = feature('ridgeback', 'vehicle').options;
    expect(tabs()).toHaveLength(options.length);
    act(() => tabs()[0]?.focus());
    await user.keyboard('{ArrowRight}');
    expect(document.activeElement).toBe(tabs()[1]);
    // What one comes to is worked out ahead.
    expect(seen.considered.at(-1)).toEqual({ on: 'vehicle', value: options[1]?.id });
    await user.keyboard('{Enter}');
    expect(seen.decisions).toEqual([{ on: 'vehicle', value: options[1]?.id }]);
    expect(tabs()[1]?.getAttribute('aria-checked') ?? tabs()[1]?.getAttribute('aria-selected')).toBe('true');
  });

  it('go nowhere once the build is settled', async () => {
    const { seen, user } = show({ of: 'ridgeback', row: 'vehicle', frozen: true });
    const [first] = document.querySelectorAll<HTMLElement>('[data-tab]');
    if (first) await user.click(first);
    expect(seen.decisions).toEqual([]);
  });

  it('that cannot be had are asked why, not taken', async () => {
    // Of all options some is not free with some decision: found by the engine, not by name.
    const single = new Set(
      models.ridgeback.document.features.flatMap(({ id, options, most }) =>
        most === 1 && options.length <= 10 ? [id] : [],
      ),
    );
    const [decision, other] = ((): [Decision, Target] | [] => {
      for (const on of single)
        for (const { id: value } of feature('ridgeback', on).options)
          for (const row of Object.values(
            engines.ridgeback?.state({ decisions: [{ on, value }] }).rows ?? {},
          )) {
            const option = row.options?.find(({ standing }) => standing === 'swap');
            if (option && row.shown && row.id !== on && single.has(row.id))
              return [
                { on, value },
                { on: row.id, value: option.id },
              ];
          }
      return [];
    })();
    if (!decision || !other) throw new Error('everything goes with everything');
    const { seen, user } = show({ of: 'ridgeback', row: other.on, start: [decision] });
    const name = feature('ridgeback', other.on).options.find(({ id }) => id === other.value)?.name.en ?? '';
    const tab = [...document.querySelectorAll<HTMLElement>('[data-tab]')].find((each) =>
      each.textContent.includes(name),
    );
    if (!tab) throw new Error(`${name} is not shown`);
    await user.click(tab);
    expect(seen.asked).toEqual([{ on: other.on, value: other.value }]);
    expect(seen.decisions).toEqual([decision]);
  });
});

describe('a number', () => {
  const field = () => screen.getByRole<HTMLInputElement>('textbox');
  const height = { of: 'plumb', row: 'height' } as const;

  it('is taken with Enter, in whatever unit it is typed', async () => {
    const { seen, user } = show(height);
    await user.clear(field());
    await user.type(field(), '4000 mm{Enter}');
    expect(seen.decisions).toEqual([{ on: 'height', value: '4' }]);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('out of range stays as typed, says so, and offers what can be had', async () => {
    const { seen, user } = show(height);
    await user.clear(field());
    await user.type(field(), '9999 m{Enter}');
    expect(seen.decisions).toEqual([]);
    expect(field().value).toBe('9999 m');
    const said = screen.getByRole('alert').textContent;
    expect(said).not.toBe('');
    await user.keyboard('{Escape}');
    expect(field().value).not.toBe('9999 m');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('that is none is refused in a sentence', async () => {
    const { seen, user } = show(height);
    await user.clear(field());
    await user.type(field(), 'long{Enter}');
    expect([seen.decisions, screen.getByRole('alert').textContent === '']).toEqual([[], false]);
  });

  it('is shown and read in feet where somebody thinks in them', async () => {
    const { seen, user } = show({ ...height, units: 'imperial' });
    expect(screen.getAllByText(/ft/).length).toBeGreaterThan(0);
    await user.clear(field());
    await user.type(field(), '13 ft{Enter}');
    expect(seen.decisions).toEqual([{ on: 'height', value: expect.stringMatching(/^3\.9|^4/) as string }]);
  });
});

describe('a text', () => {
  it('is taken when the field is left, and no longer than it may be', async () => {
    const { seen, user } = show({ of: 'quarryGate', row: 'plateText' });
    const text = models.quarryGate.document.parameters.find(({ id }) => id === 'plateText');
    const field = screen.getByRole('textbox');
    await user.type(field, 'Gate 1');
    await user.tab();
    expect(seen.decisions).toEqual([{ on: 'plateText', value: 'Gate 1' }]);
    await user.clear(field);
    await user.type(field, 'x'.repeat((text?.type === 'text' ? text.most : 0) + 1));
    await user.tab();
    expect(seen.decisions).toEqual([{ on: 'plateText', value: 'Gate 1' }]);
    await user.clear(field);
    await user.tab();
    expect(seen.decisions).toEqual([]);
  });
});

describe('many options', () => {
  const many = models.many.document.features.find(({ options, most }) => options.length > 10 && most === 1);

  it('are a table that is searched by typing and gone through with arrows', async () => {
    const { seen, user } = show({ of: 'many', row: many?.id ?? '' });
    const field = await screen.findByRole('combobox');
    const shown = () => within(screen.getByRole('listbox')).getAllByRole('option');
    const before = (await screen.findAllByRole('option')).length;
    await user.type(field, 'option 12');
    expect(shown()).toHaveLength(1);
    expect(shown()[0]?.textContent).toContain('Option 12');
    await user.keyboard('{Enter}');
    expect([...seen.decisions, ...seen.asked]).toEqual([{ on: many?.id, value: 'o12' }]);
    await user.keyboard('{Escape}');
    expect([field.getAttribute('value'), shown().length]).toEqual(['', before]);
    await user.keyboard('{ArrowDown}{ArrowDown}');
    expect(field.getAttribute('aria-activedescendant')).toMatch(/-2$/);
  });

  it('say that none is called that', async () => {
    const { user } = show({ of: 'many', row: many?.id ?? '' });
    await user.type(await screen.findByRole('combobox'), 'nothing like it');
    expect(screen.queryAllByRole('option')).toEqual([]);
    expect(screen.getByText(/nothing like it/)).toBeTruthy();
  });
});
