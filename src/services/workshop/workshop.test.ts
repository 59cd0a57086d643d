/** Drafts, versions and what they would change, as several people work on them. */
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { compileModel, type ModelDocument } from '../../core/model';
import { conflictKey, type Edit } from '../../core/modelling';
import { chance, anyEdit } from '../../core/modelling/testing';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { atWork, pinnedNumber, valueOf } from './testing';
import { versionInForce } from '../catalogue/models';
import { bring, openFile } from '../files/files';
import { openDemo, personOf } from '../kernel/testing';
import { changeWorkshop, seeHouse } from '../settings/house';
import { inDays, today } from '../kernel/clock';
import { beginDraft } from './begin-draft';
import {
  catchUp,
  draftDifferences,
  editDraft,
  putAside,
  redo,
  seeCatchUp,
  seeDraft,
  seeEdits,
  seeModels,
  undo,
} from './drafts';
import { askForImpact, impactJob, seeImpact } from './impact';
import { checkDraft, checkJob } from './check';
import { agreeTo, publishDraft, versionsOf, withdraw } from './versions';

let wen: Actor;
let other: Actor;
let tobias: Actor;
let mara: Actor;

beforeAll(async () => {
  await openDemo('workshop');
  wen = await personOf('wen@harrowmoor.example');
  tobias = await personOf('tobias@harrowmoor.example');
  mara = await personOf('mara@harrowmoor.example');
  // Another modeller; who it is does not matter.
  other = { ...(await personOf('joss@harrowmoor.example')), role: 'modeller' };
});
afterEach(() => {
  vi.useRealTimers();
});

const currentOf = async (modelId: string): Promise<string> => (await versionInForce(modelId))?.id ?? '';
async function draftOf(modelId: string, name = 'A draft'): Promise<string> {
  const begun = await beginDraft(wen, { name, from: { is: 'version', version: await currentOf(modelId) } });
  return valueOf(begun).id;
}
const documentOf = async (id: string): Promise<ModelDocument> => valueOf(await seeDraft(wen, id)).document;
const versionOf = async (id: string): Promise<number> => valueOf(await seeDraft(wen, id)).version;
const code = (result: { ok: boolean; failures?: readonly { code: string }[] }): string =>
  result.ok ? '' : (result.failures?.[0]?.code ?? '');

/** Works out what a draft would change, as a worker does, and looks at it. */
async function seenImpact(id: string) {
  const { version } = valueOf(await seeDraft(wen, id));
  valueOf(await askForImpact(wen, id, { version }));
  const draft = await connected().records.modelDrafts.findByPk(id);
  const input = { draft: id, hash: draft?.hash ?? '' };
  const made = await impactJob.work(input, atWork);
  await impactJob.finish(made, input, atWork);
  return valueOf(await seeImpact(id, { page: 0 }));
}

async function publishOf(id: string, from = today(), actor = wen) {
  return publishDraft(actor, id, { version: await versionOf(id), note: 'For the test.', from });
}

const rename = (name: string): Edit => ({ do: 'set', at: [], name: 'name.en', value: name });
const noteRule = (id: string): Edit => ({
  do: 'add',
  to: ['rules'],
  part: { id, kind: 'say', when: 'true', severity: 'note', reason: { en: id, de: id } },
});

const figure = (id: string): Edit => ({
  do: 'add',
  to: ['calculations'],
  part: { id, name: { en: id, de: id }, type: 'number', formula: '1' },
});

describe('a draft', () => {
  it('keeps edits that can be taken back and made again, also by who opens it later', async () => {
    const id = await draftOf('tarn');
    const before = await documentOf(id);
    const random = chance(3);
    let done = 0;
    for (let step = 0; done < 25; step++) {
      const document = await documentOf(id);
      const result = await editDraft(wen, id, {
        version: await versionOf(id),
        edit: anyEdit(document, random, step),
      });
      if (result.ok) done++;
    }
    const after = await documentOf(id);
    expect(after).not.toEqual(before);
    for (let step = 0; step < 25; step++) valueOf(await undo(wen, id, { version: await versionOf(id) }));
    const undone = valueOf(await seeDraft(other, id));
    expect(undone.document).toEqual(before);
    expect([undone.canUndo, undone.canRedo]).toEqual([false, true]);
    expect(code(await undo(wen, id, { version: await versionOf(id) }))).toBe('draft.nothingToUndo');
    for (let step = 0; step < 25; step++) valueOf(await redo(wen, id, { version: await versionOf(id) }));
    expect(await documentOf(id)).toEqual(after);
    // Whatever is done now leaves nothing to be made again.
    valueOf(await undo(wen, id, { version: await versionOf(id) }));
    valueOf(await editDraft(wen, id, { version: await versionOf(id), edit: rename('Again') }));
    expect(code(await redo(wen, id, { version: await versionOf(id) }))).toBe('draft.nothingToRedo');
    expect(valueOf(await seeEdits(id, 0)).rows[0]).toMatchObject({ by: wen.name, undone: false });
  });

  it('takes edits of two at once, tells each what the other did, and overwrites nothing unseen', async () => {
    const id = await draftOf('tarn');
    const version = await versionOf(id);
    const first = valueOf(await editDraft(wen, id, { version, edit: rename('One') }));
    const second = valueOf(
      await editDraft(other, id, { version, edit: { do: 'set', at: [], name: 'name.de', value: 'Zwei' } }),
    );
    expect(first.between).toEqual([]);
    expect(second.between.map(({ by, edit }) => [by, edit])).toEqual([[wen.name, rename('One')]]);
    const against = await editDraft(other, id, { version, edit: rename('Three') });
    expect(against).toMatchObject({
      ok: false,
      status: 'conflict',
      failures: [{ code: 'draft.cameBetween', params: { by: wen.name } }],
    });
    expect((await documentOf(id)).name).toEqual({ en: 'One', de: 'Zwei' });
    // What stands in a part that another took away, and a part whose id another changed.
    const now = await versionOf(id);
    const [feature] = (await documentOf(id)).features;
    const at = ['features', feature?.id ?? ''];
    valueOf(await editDraft(wen, id, { version: now, edit: { do: 'rename', at, to: 'called' } }));
    expect(
      code(await editDraft(other, id, { version: now, edit: { do: 'set', at, name: 'least', value: 0 } })),
    ).toBe('draft.cameBetween');
    expect(code(await undo(other, id, { version: now }))).toBe('draft.stale');
    expect(code(await editDraft(wen, id, { version: 999, edit: rename('Late') }))).toBe('draft.stale');
  });

  it('loses none of twenty edits at once', async () => {
    const id = await draftOf('tarn');
    const version = await versionOf(id);
    const all = await Promise.all(
      Array.from({ length: 20 }, (_, index) =>
        editDraft(wen, id, { version, edit: noteRule(`n${String(index)}`) }),
      ),
    );
    expect(all.every(({ ok }) => ok)).toBe(true);
    const rules = (await documentOf(id)).rules.map((rule) => rule.id);
    expect(rules).toEqual(
      expect.arrayContaining(Array.from({ length: 20 }, (_, index) => `n${String(index)}`)),
    );
    expect(await versionOf(id)).toBe(version + 20);
  });

  it('refuses what cannot be done, and what is not for an edit to do', async () => {
    const id = await draftOf('tarn');
    const tried = async (edit: Edit): Promise<string> => code(await editDraft(wen, id, { version: 1, edit }));
    expect(await tried({ do: 'set', at: [], name: 'format', value: 1 })).toBe('draft.badEdit');
    expect(
      await tried({ do: 'several', edits: [{ do: 'set', at: [], name: 'library.models', value: [] }] }),
    ).toBe('draft.badEdit');
    expect(await tried({ do: 'set', at: [], name: 'id', value: 'other' })).toBe('draft.badEdit');
    expect(await tried({ do: 'remove', at: ['rules', 'nobody'] })).toBe('edit.missing');
    const [one, two] = (await documentOf(id)).features;
    expect(await tried({ do: 'rename', at: ['features', one?.id ?? ''], to: two?.id ?? '' })).toBe(
      'edit.taken',
    );
    expect(await versionOf(id)).toBe(1);
    valueOf(await putAside(wen, id, { version: 1 }));
    expect(await tried(rename('After'))).toBe('draft.closed');
    expect((await seeModels()).models.flatMap(({ drafts }) => drafts).some((each) => each.id === id)).toBe(
      false,
    );
  });

  it('begins from nothing, a copy, items and a document, each as a model that compiles', async () => {
    const free = { title: 'Floor scale' };
    const starts = [
      { is: 'nothing', id: 'floorA', sku: 'YE-LAMP', ...free },
      { is: 'copy', id: 'floorB', sku: 'YE-SIGN', version: await currentOf('tarn'), ...free },
      { is: 'items', id: 'floorC', sku: 'SV-CALIB', skus: ['YE-LAMP', 'YE-SIGN'], ...free },
    ] as const;
    for (const from of starts) {
      const { id } = valueOf(
        await beginDraft(wen, {
          name: 'New',
          from: { ...from, ...('skus' in from ? { skus: [...from.skus] } : {}) } as never,
        }),
      );
      const document = await documentOf(id);
      const result = compileModel(document);
      expect(result.ok ? [] : result.problems, from.is).toEqual([]);
      expect(document.name.en).toBe('Floor scale');
      expect(code(await beginDraft(wen, { name: 'Again', from: starts[0] }))).toBe('draft.idTaken');
    }
    const tarn = await documentOf(await draftOf('tarn'));
    const old = { ...tarn, format: 1 };
    const read = valueOf(await beginDraft(wen, { name: 'Read', from: { is: 'document', document: old } }));
    expect(valueOf(await seeDraft(wen, read.id))).toMatchObject({ modelId: 'tarn', base: 1 });
    const newer = { ...tarn, format: 3 };
    expect(code(await beginDraft(wen, { name: 'X', from: { is: 'document', document: newer } }))).toBe(
      'draft.badDocument',
    );
    expect(
      code(
        await beginDraft(wen, { name: 'X', from: { is: 'document', document: { ...tarn, id: 'apart' } } }),
      ),
    ).toBe('draft.noSku');
    expect(
      code(
        await beginDraft(wen, { name: 'X', from: { is: 'nothing', id: 'x', sku: 'NO-SUCH', title: 'X' } }),
      ),
    ).toBe('draft.noItem');
  });
});

describe('a draft of rows of a sheet, and of a bundle', () => {
  it('has what the sheet says, tells what is wrong in it, and leaves that out where it is wished', async () => {
    const base = { id: 'crate', sku: 'YE-KIOSK', title: 'Crate' };
    const rows = [
      ['Feature', 'Kind', 'Option', 'Code', 'Item'],
      ['Size', '', 'Small', 'S', 'YE-BOLL'],
      ['Size', '', 'Large', '', 'NO-SUCH'],
      ['Weight', 'number', '', '', ''],
    ];
    const begin = (from: Partial<{ rows: string[][]; leave: boolean }>) =>
      beginDraft(wen, { name: 'Of a sheet', from: { is: 'rows', ...base, rows, ...from } });
    const refused = await begin({});
    expect(refused).toMatchObject({
      ok: false,
      failures: [{ code: 'rows.unknownItem', params: { item: 'NO-SUCH', where: '3: ' }, field: 'rows' }],
    });
    expect(code(await begin({ rows: [['', '']] }))).toBe('draft.noRows');
    const { id } = valueOf(await begin({ leave: true }));
    const made = await documentOf(id);
    expect(made).toMatchObject({
      sections: [{ rows: ['size', 'weight'] }],
      features: [{ id: 'size', options: [{ code: 'S', item: 'YE-BOLL' }, { code: 'A' }] }],
      parameters: [{ id: 'weight', type: 'number' }],
    });
    expect(compileModel(made).ok).toBe(true);
    await putAside(wen, id, { version: 1 });
    const version = await currentOf('quarryGate');
    const bundle = { is: 'bundle' as const, ...base, id: 'gate', version };
    const { id: second } = valueOf(await beginDraft(wen, { name: 'Of a bundle', from: bundle }));
    const parts = await documentOf(second);
    expect(parts.rules).toEqual([]);
    expect(parts.features.every(({ options }) => options.every((each) => each.item ?? each.model))).toBe(
      true,
    );
    expect(parts.features.length).toBeGreaterThan(0);
    const result = compileModel(parts);
    expect(result.ok ? [] : result.problems).toEqual([]);
    await putAside(wen, second, { version: 1 });
  });
});

describe('pictures of options', () => {
  it('are brought by who edits, belong to the model then, and are no file of somebody else', async () => {
    const id = await draftOf('tarn');
    const document = await documentOf(id);
    const [feature] = document.features;
    const at = ['features', feature?.id ?? '', 'options', feature?.options[0]?.id ?? ''];
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><rect width="9" height="9"/></svg>';
    const brought = async (actor: Actor, name: string) =>
      valueOf(await bring(actor, { name, bytes: new TextEncoder().encode(svg) })).id;
    const set = async (value: string) =>
      editDraft(wen, id, { version: await versionOf(id), edit: { do: 'set', at, name: 'picture', value } });
    expect(code(await set(await brought(mara, 'hers.svg')))).toBe('files.missing');
    expect(code(await set('not a file'))).not.toBe('');
    const own = await brought(wen, 'own.svg');
    valueOf(await set(own));
    expect((await openFile(mara, own, 'whole')).ok).toBe(true);
    // Another of the house takes the picture back and puts it there again: it is the model's.
    valueOf(await undo(other, id, { version: await versionOf(id) }));
    valueOf(await redo(other, id, { version: await versionOf(id) }));
    expect((await documentOf(id)).features[0]?.options[0]?.picture).toBe(own);
    await putAside(wen, id, { version: await versionOf(id) });
  });
});

describe('the check-up', () => {
  it('of a large model is a job, which goes on where an earlier try was cut off, and is kept', async () => {
    const id = await draftOf('farmDriveOver');
    // What nobody reads makes it long enough.
    const note = 'x'.repeat(900);
    const rules = Array.from({ length: 700 }, (_, at): Edit => ({
      do: 'add',
      to: ['rules'],
      part: {
        id: `long${String(at)}`,
        kind: 'say',
        when: 'false',
        severity: 'note',
        reason: { en: note, de: 'x' },
      },
    }));
    const edit: Edit = { do: 'several', edits: rules };
    valueOf(await editDraft(wen, id, { version: 1, edit }));
    expect(code(await publishOf(id))).toBe('draft.unchecked');
    const begun = valueOf(await checkDraft(wen, id, { version: 2 }));
    expect(begun).toMatchObject({ check: null, job: expect.any(String) as string });
    expect(valueOf(await checkDraft(wen, id, { version: 2 }))).toEqual(begun);
    const draft = await connected().records.modelDrafts.findByPk(id);
    const input = { draft: id, hash: draft?.hash ?? '' };
    const steps: unknown[] = [];
    let kept: Parameters<typeof checkJob.work>[1]['kept'] = null;
    const cut = {
      ...atWork,
      kept,
      keep: (now: typeof kept) => Promise.resolve(void (kept = now)),
      progress: (far: unknown) => {
        steps.push(far);
        return steps.length > 1 ? Promise.reject(new Error('cut off')) : Promise.resolve();
      },
    };
    await expect(checkJob.work(input, cut)).rejects.toThrow('cut off');
    steps.length = 0;
    const whole = await checkJob.work(input, {
      ...atWork,
      kept,
      progress: (far) => Promise.resolve(void steps.push(far)),
    });
    expect(steps[0]).toMatchObject({ done: 1 });
    await checkJob.finish(whole, input, { ...atWork, kept: null });
    const { check } = valueOf(await checkDraft(wen, id, { version: 2 }));
    expect(check).toMatchObject({ version: 2, problems: [] });
    expect(check?.findings).toEqual(whole.findings);
    await putAside(wen, id, { version: 2 });
  });
});

describe('publishing', () => {
  it('wants a sound model, green tests, and its impact seen for this very draft', async () => {
    const id = await draftOf('beacon');
    expect(code(await publishOf(id, inDays(-1)))).toBe('draft.fromPast');
    expect(code(await publishOf(id))).toBe('draft.impactUnseen');
    const edit = async (each: Edit): Promise<void> => {
      valueOf(await editDraft(wen, id, { version: await versionOf(id), edit: each }));
    };
    await edit({
      do: 'add',
      to: ['rules'],
      part: { id: 'bad', kind: 'require', must: 'nobody > 3', reason: { en: 'x', de: 'x' } },
    });
    expect(code(await publishOf(id))).toBe('draft.problems');
    const { check } = valueOf(await checkDraft(wen, id, { version: await versionOf(id) }));
    expect(check?.problems[0]).toMatchObject({ path: 'rules.bad.must', code: 'formula.unknownName' });
    await edit({ do: 'set', at: ['rules', 'bad'], name: 'must', value: 'false' });
    expect(code(await publishOf(id))).toBe('draft.findings');
    await edit({ do: 'remove', at: ['rules', 'bad'] });
    await edit({
      do: 'add',
      to: ['tests'],
      part: { id: 'red', decisions: { housing: 'desk' }, expect: { values: { housing: 'ip66' } } },
    });
    expect(code(await publishOf(id))).toBe('draft.redTests');
    await edit({ do: 'remove', at: ['tests', 'red'] });
    const { counts } = await seenImpact(id);
    expect(counts.lost + counts.decide + counts.other).toBe(0);
    // What was seen was seen of another draft, once something is edited.
    await edit(rename('Beacon, again'));
    expect(code(await publishOf(id))).toBe('draft.impactUnseen');
    await seenImpact(id);
    const version = await versionOf(id);
    const published = valueOf(await publishOf(id));
    expect(published.number).toBe(2);
    expect((await versionInForce('beacon'))?.name['en']).toBe('Beacon, again');
    expect(code(await publishDraft(wen, id, { version, note: 'Again.', from: today() }))).toBe(
      'draft.closed',
    );
  });

  it('is once where two publish at the same moment; the other is behind, and brought up to date loses nothing', async () => {
    const [one, two] = [await draftOf('plumb', 'One'), await draftOf('plumb', 'Two')];
    valueOf(await editDraft(wen, one, { version: 1, edit: rename('Plumb one') }));
    valueOf(await editDraft(other, two, { version: 1, edit: rename('Plumb two') }));
    valueOf(await editDraft(other, two, { version: 2, edit: figure('mine') }));
    valueOf(await editDraft(wen, one, { version: 2, edit: figure('theirs') }));
    await seenImpact(one);
    await seenImpact(two);
    const results = await Promise.all([publishOf(one), publishOf(two)]);
    expect(results.map(code).sort()).toEqual(['', 'draft.behind']);
    const behind = results[0].ok ? two : one;
    const seen = valueOf(await seeCatchUp(behind));
    expect(seen.conflicts.map((each) => conflictKey(each))).toEqual(['.name.en']);
    const ahead = (await versionInForce('plumb'))?.name['en'] ?? '';
    valueOf(await catchUp(wen, behind, { version: await versionOf(behind), take: ['.name.en'] }));
    const document = await documentOf(behind);
    expect(document.name['en']).toBe(ahead);
    expect(document.calculations.map((each) => each.id)).toEqual(expect.arrayContaining(['mine', 'theirs']));
    expect(code(await seeCatchUp(behind))).toBe('draft.upToDate');
    const differ = valueOf(await draftDifferences(behind));
    expect(differ).toHaveLength(1);
    await seenImpact(behind);
    expect(valueOf(await publishOf(behind)).number).toBe(3);
  });

  it('takes effect on its day, and withdrawn gives way to the one before; builds keep theirs', async () => {
    const id = await draftOf('ridgeback');
    valueOf(await editDraft(wen, id, { version: 1, edit: rename('Ridgeback of Monday') }));
    await seenImpact(id);
    const monday = inDays(8);
    const published = valueOf(await publishOf(id, monday));
    const now = await versionInForce('ridgeback');
    expect(now?.number).toBe(1);
    expect((await versionInForce('ridgeback', monday))?.number).toBe(2);
    const [customer] = await connected().records.customers.findAll({ where: { dealerId: null }, limit: 1 });
    const begin = async (): Promise<number> => {
      const { id: build } = valueOf(
        await beginBuild(mara, { customerId: customer?.id ?? '', modelId: 'ridgeback' }),
      );
      return pinnedNumber(build);
    };
    expect(await begin()).toBe(1);
    vi.useFakeTimers({ now: new Date(`${monday}T12:00:00Z`), toFake: ['Date'] });
    expect(await begin()).toBe(2);
    const later = await connected().records.builds.findOne({ where: { modelVersionId: published.id } });
    valueOf(await withdraw(wen, published.id, { note: 'A slip.' }));
    expect((await versionInForce('ridgeback'))?.number).toBe(1);
    expect(await begin()).toBe(1);
    expect((await connected().records.builds.findByPk(later?.id ?? ''))?.modelVersionId).toBe(published.id);
    expect(code(await withdraw(wen, published.id, { note: 'Again.' }))).toBe('version.withdrawn');
    vi.useRealTimers();
    expect(
      (await versionsOf('ridgeback')).map(({ number, current, withdrawn }) => [
        number,
        current,
        withdrawn?.note,
      ]),
    ).toEqual([
      [2, false, 'A slip.'],
      [1, true, undefined],
    ]);
    // A draft whose base was withdrawn says so, and can be brought onto the one that is in force.
    const orphan = valueOf(
      await beginDraft(wen, { name: 'Orphan', from: { is: 'version', version: published.id } }),
    ).id;
    expect(valueOf(await seeDraft(wen, orphan))).toMatchObject({ baseWithdrawn: true, behind: true });
    const caught = valueOf(await seeCatchUp(orphan));
    expect([caught.to, caught.conflicts]).toEqual([1, []]);
    const actions = await connected().records.audit.findAll({
      where: { subject: 'ridgeback' },
      order: [['id', 'ASC']],
    });
    expect(actions.map(({ action }) => action)).toEqual(
      expect.arrayContaining(['draft.begun', 'draft.impact', 'model.published', 'model.withdrawn']),
    );
  });

  it('wants a second pair of eyes where the house says so, which are not those of whoever made it', async () => {
    const { workshop } = await seeHouse();
    valueOf(await changeWorkshop(tobias, { version: workshop.version, secondEyes: true }));
    const id = await draftOf('tarn');
    valueOf(await editDraft(wen, id, { version: 1, edit: rename('Tarn seen') }));
    await seenImpact(id);
    expect(code(await publishOf(id))).toBe('draft.notAgreed');
    expect(code(await agreeTo(wen, id, { version: 2 }))).toBe('draft.ownEyes');
    valueOf(await editDraft(other, id, { version: 2, edit: rename('Tarn of two') }));
    expect(code(await agreeTo(other, id, { version: 3 }))).toBe('draft.ownEyes');
    valueOf(await agreeTo(tobias, id, { version: 3 }));
    await seenImpact(id);
    valueOf(await publishOf(id));
    expect((await versionsOf('tarn'))[0]).toMatchObject({ number: 2, agreedBy: tobias.name, by: wen.name });
  });
});

describe('the impact', () => {
  it('says of each build out there what becomes of it, once, also where a worker was cut off', async () => {
    const id = await draftOf('ridgeback', 'Other capacities');
    const all = await seenImpact(id);
    expect(all.count).toBeGreaterThan(3);
    expect(all.counts).toEqual({ same: all.count, other: 0, decide: 0, lost: 0 });
    // A worker that was cut off before the last: another does this one, and no other.
    const last = { draftId: id, position: all.count - 1 };
    await connected().records.modelImpacts.destroy({ where: last });
    await connected().records.modelImpacts.update(
      { verdict: 'lost' },
      { where: { draftId: id, position: 0 } },
    );
    const draft = await connected().records.modelDrafts.findByPk(id);
    await impactJob.work({ draft: id, hash: draft?.hash ?? '' }, atWork);
    expect(valueOf(await seeImpact(id, { page: 0 })).counts).toMatchObject({ lost: 1, same: all.count - 1 });
    // What was chosen and is gone is lost; what costs more is other.
    const surcharge: Edit = {
      do: 'add',
      to: ['prices'],
      part: { id: 'more', name: { en: 'More', de: 'Mehr' }, item: 'YE-LAMP', quantity: '1' },
    };
    valueOf(await editDraft(wen, id, { version: 1, edit: surcharge }));
    const dearer = await seenImpact(id);
    expect(dearer.counts.other).toBe(all.count);
    for (const { price, at, owner } of dearer.rows) {
      expect(Number(price.after)).toBeGreaterThan(Number(price.before));
      expect([at.number, owner]).not.toContain('');
    }
    const taken = (await connected().records.builds.findByPk(dearer.rows[0]?.build ?? ''))?.outcome.values[
      'capacity'
    ];
    const at = ['features', 'capacity', 'options', String(taken)];
    valueOf(await editDraft(wen, id, { version: 2, edit: { do: 'rename', at, to: 'another' } }));
    const lost = await seenImpact(id);
    expect(lost.counts.lost + lost.counts.decide + lost.counts.other).toBe(all.count);
    expect(valueOf(await seeImpact(id, { page: 0, is: 'lost' })).count).toBe(lost.counts.lost);
    expect(code(await seeImpact(await draftOf('beacon'), { page: 0 }))).toBe('draft.noImpact');
  });
});

describe('what is there', () => {
  it('keeps two new models from being sold as one item', async () => {
    const begin = async (id: string) =>
      valueOf(
        await beginDraft(wen, {
          name: 'New',
          from: { is: 'items', id, sku: 'SILL', title: id, skus: ['SILL-RAMP', 'SILL-COL'] },
        }),
      ).id;
    const [one, two] = [await begin('sillOne'), await begin('sillTwo')];
    const { workshop } = await seeHouse();
    valueOf(await changeWorkshop(tobias, { version: workshop.version, secondEyes: false }));
    const results = await Promise.all([publishOf(one), publishOf(two)]);
    expect(results.map(code).sort()).toEqual(['', 'draft.skuTaken']);
  });
});
