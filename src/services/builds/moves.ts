/** A build moves to the newest version of its model when a person says so, knowing what would change. */
import type { MoveView, VersionInput } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { questionOf } from './bench';
import type { Found } from './find-build';
import { subjectAt } from './home';
import { keepFactsOf, outcomeOf, withPlace } from './outcome';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { findBuild, findOpenBuild } from './find-build';
import { askEngine } from '../kernel/engines';
import { versionInForce, versionById, type VersionHead } from '../catalogue/models';
import { inTransaction, record } from '../kernel/unit-of-work';

async function versionsOf(modelVersionId: string): Promise<{ pinned: VersionHead; newest: VersionHead }> {
  const pinned = await versionById(modelVersionId);
  return { pinned, newest: (await versionInForce(pinned.modelId)) ?? pinned };
}

/** What would change, worked out without changing anything. */
export async function seeMove(actor: Actor, id: string): Promise<Result<MoveView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build } = found.value;
  const { pinned, newest } = await versionsOf(build.modelVersionId);
  const { version, context, ...question } = await questionOf(
    actor,
    found.value,
    pinned,
    await connected().records.lines.findOne({ where: { buildId: id } }),
  );
  const { before, after, changes, dropped } = await askEngine('move', {
    ...question,
    from: { version, context },
    to: { version: newest.id, context: { ...context, date: today() } },
  });
  return done({
    from: pinned.number,
    to: newest.number,
    changes: changes.map(({ row, before: was, after: is }) => ({
      row,
      before: was ?? null,
      after: is ?? null,
    })),
    dropped,
    clashes: after.state.clashes.length,
    list: { before: before.price.list, after: after.price.list },
  });
}

/** Moves it. Decisions without a place in the newer version are dropped, as was told before. */
export async function moveBuild(actor: Actor, id: string, { version }: VersionInput): Promise<Result<null>> {
  return inTransaction(async () => {
    const found = await findOpenBuild(actor, id);
    if (!found.ok) return found;
    if (found.value.build.version !== version) return fail('conflict', { code: 'build.stale' });
    await moveToNewest(actor, found.value);
    await keepFactsOf(found.value);
    return done(null);
  });
}

/** From which version to which a build was moved, and the decisions that had no place there. */
export interface Moved {
  from: number;
  to: number;
  dropped: string[];
}

/**
 * Puts a build, and the line it stands on, on the newest version of its model and on the rules and prices of
 * today.
 */
export async function moveToNewest(actor: Actor, { build, home }: Found): Promise<Moved> {
  const { pinned, newest } = await versionsOf(build.modelVersionId);
  const decisions = await withPlace(newest, build.decisions);
  const dropped = [
    ...new Set(build.decisions.filter((each) => !decisions.includes(each)).map(({ on }) => on)),
  ];
  const asked = await withPlace(newest, build.asked);
  const context = { ...build.context, date: today() };
  const outcome = await outcomeOf(newest, context, {
    asked,
    decisions,
    passed: build.passed,
    special: build.special,
  });
  await build.update({
    modelVersionId: newest.id,
    context,
    asked,
    decisions,
    outcome,
    version: build.version + 1,
  });
  await connected().records.lines.update({ pricedOn: context.date }, { where: { buildId: build.id } });
  await record(actor, 'build.moved', subjectAt(home), {
    build: build.id,
    from: pinned.number,
    to: newest.number,
    dropped,
  });
  return { from: pinned.number, to: newest.number, dropped };
}
