/**
 * What a draft would change out there, as a job: over the builds of every open quote, all kept builds, and builds sold
 * in the last twelve months.
 */
import { QueryTypes } from 'sequelize';
import type { DraftInput, ImpactQuery, ImpactRow, ImpactView } from '../../contract';
import type { Decision } from '../../core/engine';
import type { SpecialPart } from '../../core/builds';
import type { BuildImpact } from '../../core/modelling';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { askPatiently, draftKey, factsKey, tariffKey } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { inTransaction, record } from '../kernel/unit-of-work';
import { inForceOn, reference } from '../settings/reference-data';
import { knownDraft, openDraft } from './draft-row';

/** The document that it is worked out for. */
interface Input {
  draft: string;
  hash: string;
}

/** A build out there. */
interface Found {
  build: string;
  is: ImpactRow['at']['is'];
  id: string;
  number: string;
  title: string;
  owner: string;
  version: string | null;
  list: string;
  region: string;
  asked: Decision[];
  decisions: Decision[];
  special: SpecialPart[];
}

/** So many builds in one question to a thread, and so many questions at once. */
const atOnce = 8;
const questions = 2;
/** Rows of a page. */
const pageSize = 100;

const foundSql = `
  select b.id as build, 'quote' as is, q.id, q.number, q.title, o.name as owner, b.model_version_id as version,
    r.price_list as list, coalesce(r.customer ->> 'region', '') as region, b.asked, b.decisions, b.special
  from quotes q
    join lateral (select * from quote_revisions v where v.quote_id = q.id order by v.number desc limit 1) r on true
    join quote_lines l on l.revision_id = r.id join builds b on b.id = l.build_id
    join model_versions m on m.id = b.model_version_id join users o on o.id = q.owner_id
  where r.state in ('draft', 'sent') and m.model_id = $1
  union all
  select b.id, 'order', d.id, d.number, q.title, o.name, b.model_version_id,
    r.price_list, coalesce(r.customer ->> 'region', ''), b.asked, b.decisions, b.special
  from orders d join quotes q on q.id = d.quote_id join quote_revisions r on r.id = d.revision_id
    join quote_lines l on l.revision_id = r.id join builds b on b.id = l.build_id
    join model_versions m on m.id = b.model_version_id join users o on o.id = q.owner_id
  where d.created_at > now() - interval '12 months' and m.model_id = $1
  union all
  select s.id, 'saved', s.id, s.part_number, s.name, o.name, null, '', '', s.asked, s.decisions, '[]'::jsonb
  from saved_builds s join users o on o.id = s.owner_id where s.model_id = $1
  order by 2, 4, 1`;

/** Works out what a draft would change; what was worked out before a worker was cut off is not worked out again. */
export const impactJob: JobKind<Input, { builds: number }> = {
  kind: 'model.impact',
  tries: 5,
  async work({ draft: id, hash }, job) {
    const draft = await openDraft(id);
    if (!draft.ok || draft.value.hash !== hash)
      throw new JobRefused({ code: draft.ok ? 'draft.stale' : 'draft.missing' });
    const { sequelize, records } = connected();
    const known = await reference();
    const current = inForceOn(known, draft.value.modelId, today());
    const usualList = known.priceLists[0]?.code ?? '';
    const regions = draft.value.document.context.find(({ id: input }) => input === 'region')?.values ?? [];
    const found = (
      await sequelize.query<Found>(foundSql, { bind: [draft.value.modelId], type: QueryTypes.SELECT })
    ).filter(({ version }) => version !== null || current);
    const there = new Set(
      (
        await records.modelImpacts.findAll({
          where: { draftId: id, hash },
          attributes: ['position'],
          raw: true,
        })
      ).map(({ position }) => position),
    );
    const batches = batchesOf(found, there);
    const [day, facts] = [today(), await factsKey()];
    let count = there.size;
    const next = async (): Promise<void> => {
      for (let batch = batches.shift(); batch; batch = batches.shift()) {
        await job.progress({ done: count, of: found.length });
        const tried = await askPatiently('impact', {
          draft: draftKey(id, hash),
          day,
          facts,
          builds: await Promise.all(
            batch.map(async ({ build: { version, list, region, asked, decisions, special } }) => ({
              version: version ?? current?.id ?? '',
              tariff: await tariffKey(list === '' ? usualList : list, day),
              values: contextOf(regions, region),
              asked,
              decisions,
              special,
            })),
          ),
        });
        // Each build has its place, so that one who does it again writes the same.
        await records.modelImpacts.bulkCreate(
          tried.map((impact, index) => {
            const { position, build } = batch[index] as (typeof batch)[number];
            return { draftId: id, hash, position, verdict: impact.is, row: rowOf(build, impact) };
          }),
          { ignoreDuplicates: true },
        );
        count += batch.length;
      }
    };
    await Promise.all(Array.from({ length: questions }, next));
    return { builds: found.length };
  },
  async finish({ builds }, { draft: id, hash }) {
    await connected().records.modelDrafts.update(
      { impactHash: hash, impactSeen: false },
      { where: { id, hash } },
    );
    return { builds };
  },
};

/** The region of the customer where the model asks for one; else the first that it has. */
function contextOf(regions: readonly { id: string }[], region: string): Record<string, string> {
  const [first] = regions;
  return first ? { region: region === '' ? first.id : region } : {};
}

function batchesOf(found: readonly Found[], there: ReadonlySet<number>) {
  const left = found
    .map((build, position) => ({ build, position }))
    .filter(({ position }) => !there.has(position));
  const batches: (typeof left)[] = [];
  for (let at = 0; at < left.length; at += atOnce) batches.push(left.slice(at, at + atOnce));
  return batches;
}

function rowOf({ build, is, id, number, title, owner }: Found, impact: BuildImpact): ImpactRow {
  const rows = new Set([...impact.dropped, ...impact.open, ...impact.changes.map(({ row }) => row)]);
  return {
    build,
    is: impact.is,
    at: { is, id, number, title },
    owner,
    rows: [...rows].slice(0, 50),
    why: [
      ...new Set(
        impact.clashes.flatMap(({ causes }) =>
          causes.flatMap((cause) => (cause.kind === 'rule' ? [cause.rule] : [])),
        ),
      ),
    ].slice(0, 20),
    price: impact.price,
    number: impact.number,
    leadDays: impact.leadDays,
  };
}

/** Begins to work it out; for a document for which it was, its job is the one that is given. */
export const askForImpact = (
  actor: Actor,
  id: string,
  { version }: DraftInput,
): Promise<Result<{ job: string }>> =>
  inTransaction(async () => {
    const found = await knownDraft(id, version);
    if (!found.ok) return found;
    const draft = found.value;
    if (draft.impactJob !== null && draft.impactHash === draft.hash) return done({ job: draft.impactJob });
    const { id: job, fresh } = await askForJob(
      impactJob,
      { draft: id, hash: draft.hash },
      { by: actor.id, once: `impact ${id} ${draft.hash}` },
    );
    // What was worked out for another document is of no use any more; nor is what an older day came to.
    if (fresh) await connected().records.modelImpacts.destroy({ where: { draftId: id } });
    await draft.update({ impactJob: job });
    if (fresh) await record(actor, 'draft.impact', draft.modelId, { draft: id });
    return done({ job });
  });

/** A page of what was worked out for a draft as it is now; whoever reads it has seen it. */
export async function seeImpact(id: string, { is, page }: ImpactQuery): Promise<Result<ImpactView>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const { hash, impactHash } = found.value;
  const { modelImpacts } = connected().records;
  const where = { draftId: id, hash, ...(is === undefined ? {} : { verdict: is }) };
  const { rows, count } = await modelImpacts.findAndCountAll({
    where,
    order: [['position', 'ASC']],
    limit: pageSize,
    offset: page * pageSize,
    raw: true,
  });
  if (impactHash !== hash) return fail('conflict', { code: 'draft.noImpact' });
  // Of this very document: another may have come meanwhile.
  await connected().records.modelDrafts.update({ impactSeen: true }, { where: { id, impactHash: hash } });
  const counted = await connected().sequelize.query<{ verdict: ImpactRow['is']; count: string }>(
    'select verdict, count(*) from model_impacts where draft_id = $1 and hash = $2 group by verdict',
    { bind: [id, hash], type: QueryTypes.SELECT },
  );
  const counts = { same: 0, other: 0, decide: 0, lost: 0 };
  for (const each of counted) counts[each.verdict] = Number(each.count);
  return done({ rows: rows.map(({ row }) => row), page, size: pageSize, count, counts });
}
