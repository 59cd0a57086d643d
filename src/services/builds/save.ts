/** Builds saved as they are made; what the page computed is not asked for. */
import type { PassedWarning, SpecialPart } from '../../core/builds';
import type { ContentInput, SavedContent } from '../../contract';
import type { BuildOutcome } from '../../data';
import { may, type Actor } from '../access/actor';
import { versionById, type VersionHead } from '../catalogue/models';
import { askEngine, factsKey } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { inTransaction } from '../kernel/unit-of-work';
import { findOpenBuild } from './find-build';
import { keepFactsOf, outcomeOf, registeredFor } from './outcome';

/**
 * Saves what a person made of a build. What the page computed is not asked for: the server works it out
 * again.
 */
export async function saveContent(
  actor: Actor,
  id: string,
  { version, decisions, passed, special }: ContentInput,
): Promise<Result<SavedContent>> {
  return inTransaction(async () => {
    const found = await findOpenBuild(actor, id);
    if (!found.ok) return found;
    const { build } = found.value;
    if (build.version !== version) return fail('conflict', { code: 'build.stale' });
    if (special.length > 0 && !may(actor, 'special'))
      return fail('forbidden', { code: 'refused.permission', params: { permission: 'special' } });
    const modelVersion = await versionById(build.modelVersionId);
    const problems = await askEngine('check', {
      version: modelVersion.id,
      decisions: decisions,
    });
    if (problems.length > 0)
      return fail('invalid', ...problems.map(({ on, code, params }) => ({ code, params, field: on })));
    const now = new Date().toISOString();
    // Who passed a warning, and when, is the server's to say.
    const kept = passed.map(
      ({ rule, reason }): PassedWarning =>
        build.passed.find((each) => each.rule === rule && each.reason === reason) ?? {
          rule,
          reason,
          by: actor.name,
          at: now,
        },
    );
    const outcome = await outcomeOf(modelVersion, build.context, {
      asked: build.asked,
      decisions,
      passed: kept,
      special,
    });
    await build.update({ decisions, passed: kept, special, outcome, version: version + 1 });
    await keepFactsOf(found.value);
    return done({
      version: version + 1,
      partNumber: outcome.partNumber,
      complete: outcome.complete,
      ...(await registeredFor(modelVersion, outcome)),
      ...(may(actor, 'workOrders') ? {} : { leadDays: await leadOf(modelVersion, outcome, special) }),
    });
  });
}

async function leadOf(
  { id: version }: VersionHead,
  { values }: BuildOutcome,
  special: readonly SpecialPart[],
): Promise<number | null> {
  const [days = null] = await askEngine('leads', {
    facts: await factsKey(),
    builds: [{ version, values, special }],
  });
  return days;
}
