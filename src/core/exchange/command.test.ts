/** The command line, on the demo's models. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { runCommand } from './index';

const files: Record<string, string> = {
  uk: '{"date": "2026-06-01", "values": {"region": "uk"}}',
  mars: '{"values": {"region": "mars"}}',
  torn: '{"format": 1,',
  other: '{"format": 9}',
};
const run = (command: string, ...more: string[]) =>
  runCommand([...command.split(' '), ...more], {
    read: (path) =>
      files[path] ??
      readFileSync(
        new URL(`../../../demo/models/${path.replace(/\.json$/, '')}.json`, import.meta.url),
        'utf8',
      ),
    today: '2026-06-01',
    now: () => performance.now(),
  });
const base = '--set vehicle=articulated --set length=m12 --context uk';

describe('the command line', () => {
  it('tells the state with its part number', () => {
    const { code, out } = run(`state ridgeback ${base}`);
    expect([
      code,
      (out as { complete: boolean; partNumber: string }).complete,
      (out as { partNumber: string }).partNumber,
    ]).toEqual([0, true, 'RB-060-120-A-P-S-D-0-3-O+T····']);
    expect(run(`state ridgeback ${base} --set mounting=pit --set approachParts.steelRamps=true`).code).toBe(
      1,
    );
  });

  it('tells why, with a second cause where there is one', () => {
    const { code, out } = run(`why ridgeback ${base} --set mounting=pit --option approachParts.steelRamps`);
    expect([code, out]).toMatchObject([
      1,
      {
        free: false,
        causes: [{ kind: 'decision', decision: { on: 'mounting' } }, { rule: 'pitRamps' }],
        second: [],
      },
    ]);
    const twice = run(
      `why ridgeback ${base} --set dust=zone21 --set docket=none --option approachParts.plateCamera`,
    ).out as { causes: { rule?: string }[]; second: { rule?: string }[] };
    expect(
      [twice.causes, twice.second].map((causes) => causes.flatMap((cause) => cause.rule ?? [])).sort(),
    ).toEqual([['cameraDocket'], ['zone21Camera']]);
    expect(run(`why ridgeback ${base} --option finish.duplex`)).toEqual({
      code: 0,
      out: { free: true, causes: [], second: [] },
    });
  });

  it('ends in time, and says what is not proven', () => {
    let clock = 0;
    const hurried = (command: string) =>
      runCommand(command.split(' '), {
        read: (path) =>
          files[path] ??
          readFileSync(
            new URL(`../../../demo/models/${path.replace(/\.json$/, '')}.json`, import.meta.url),
            'utf8',
          ),
        today: '2026-06-01',
        now: () => (clock += 200),
      });
    expect(hurried('state plumb --seconds 1')).toMatchObject({ out: { complete: false, unproven: true } });
    expect(hurried('ways plumb --set cell=c500 --option mount.large --seconds 0.2')).toEqual({
      code: 1,
      out: { unproven: true },
    });
    expect(hurried('state plumb --seconds soon').code).toBe(2);
  });

  it('lists ways out', () => {
    const { code, out } = run(`ways ridgeback ${base} --set mounting=pit --option approachParts.steelRamps`);
    expect([code, (out as { changes: { to: string }[] }[]).map((way) => way.changes[0]?.to)]).toEqual([
      0,
      ['surface', 'frame'],
    ]);
    expect(run(`ways ridgeback ${base} --option approval.ntep`)).toEqual({ code: 1, out: [] });
  });

  it('finds the best build within bounds', () => {
    const { code, out } = run(`best ridgeback ${base} --minimize deckMass --bound`, 'deckWidth>=3.2');
    expect([code, out]).toMatchObject([0, { is: 'found', proven: true }]);
    const best = out as { decisions: { on: string; value: unknown }[]; value: string };
    const chosen = Object.fromEntries(best.decisions.map(({ on, value }) => [on, value]));
    // 12 m x 3.2 m x 148 kg/m2 with grating, 2 modules x (380 + 4 x 60) kg
    expect([chosen.surface, best.value]).toEqual(['grating', '6923.2']);
  });

  it('counts, checks, writes DIMACS and reads part numbers', () => {
    const counts = run('count ridgeback').out as {
      context: { region: string };
      count: { exact: boolean; builds: bigint };
    }[];
    expect(counts.map(({ context }) => context.region)).toEqual(['eu', 'uk', 'na']);
    expect(run('check ridgeback').out).toMatchObject({
      findings: expect.arrayContaining([{ kind: 'repeatsOthers', at: 'rules.frameLength' }]) as unknown,
    });
    const cnf = run('cnf ridgeback --context uk').out as string;
    expect(cnf).toMatch(/^c -?\d+ vehicle = rigid$/m);
    const [, variables = '', clauses = ''] = /^p cnf (\d+) (\d+)$/m.exec(cnf) ?? [];
    expect(
      cnf
        .trim()
        .split('\n')
        .filter((line) => line.endsWith(' 0')).length,
    ).toBe(Number(clauses));
    expect(
      Math.max(
        ...(cnf.match(/^-?\d.* 0$/gm) ?? []).flatMap((line) =>
          line.split(' ').map(Math.abs as (value: unknown) => number),
        ),
      ),
    ).toBeLessThanOrEqual(Number(variables));
    expect(run('read ridgeback RB-060-180-B-P-S-D-0-G-O/RLT --context uk')).toMatchObject({
      code: 0,
      out: { is: 'build' },
    });
    expect(run('read ridgeback RB-070-180-B-P-S-D-0-G-O --context uk')).toMatchObject({
      code: 1,
      out: { is: 'unreadable', row: 'capacity' },
    });
  });

  it.each([
    ['nothing', ''],
    ['an unknown command', 'paint ridgeback'],
    ['no file', 'state'],
    ['a file that is not there', 'state nowhere'],
    ['a torn file', 'state torn'],
    ['a document of another version', 'state other'],
    ['an unknown row', 'state ridgeback --set colour=red'],
    ['an unknown option', 'state ridgeback --set mounting=roof'],
    ['a number between steps', 'state ridgeback --set customLength=6.3'],
    ['a decision without a value', 'state ridgeback --set mounting'],
    ['an option without its word', 'state ridgeback --set'],
    ['a value that the context has not', 'state ridgeback --context mars'],
    ['nothing to ask why of', 'why ridgeback'],
    ['a goal that is no formula', 'best ridgeback --minimize ((('],
    ['a bound that is none', 'best ridgeback --minimize deckMass --bound deckMass'],
  ])('%s is a wrong question', (_, command) => {
    const { code, out } = run(command);
    expect(code).toBe(2);
    expect(JSON.stringify(out).length).toBeGreaterThan(10);
  });

  it('lists the problems of a model that does not compile', () => {
    expect(run('check other')).toMatchObject({
      code: 1,
      out: { problems: expect.arrayContaining([expect.objectContaining({ path: 'format' })]) as unknown },
    });
  });
});
