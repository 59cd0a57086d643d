/** From part numbers, of whatever models they are, back to the builds they stand for. */
import { Op } from 'sequelize';
import type { Context, Decision } from '../../core/engine';
import { withoutSpecial } from '../../core/numbering';
import { specialOf, type SpecialPart } from '../../core/builds';
import { type NumberOnBench, type ReadNumberInput } from '../../contract';
import { connected } from '../../data';
import { may, type Actor } from '../access/actor';
import { askEngine, askPatiently } from '../kernel/engines';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { findBuild } from './find-build';
import { versionById, type VersionHead } from '../catalogue/models';
import { inForceOn, reference } from '../settings/reference-data';
import type { NumberRead } from '../kernel/threads/tasks';

/** What a part number stands for. */
export interface ReadBuild {
  version: VersionHead;
  decisions: Decision[];
  special: SpecialPart[];
  /** Nothing is left to choose. */
  complete: boolean;
  /** Texts that are still to be typed: the number says only that they are there. */
  typed: string[];
  /** Number of the earlier version by whose scheme it was read. */
  scheme?: number;
}

/**
 * The build a part number stands for, on the newest version of its model; else what is wrong with it, and
 * where.
 */
export async function readBack(typed: string, context: Context): Promise<Result<ReadBuild>> {
  const [read] = await readAll([typed], context);
  return read ?? fail('invalid', { code: 'number.unknown', params: { text: typed }, field: 'partNumber' });
}

/** What a part number says of the model of a build, on the version that the build is made on. */
export async function readForBuild(
  actor: Actor,
  id: string,
  { number }: ReadNumberInput,
): Promise<Result<NumberOnBench>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build } = found.value;
  const { modelId } = await versionById(build.modelVersionId);
  const [read] = await readAll([number], build.context, { modelId, version: build.modelVersionId });
  if (!read?.ok)
    return read ?? fail('invalid', { code: 'number.unknown', params: { text: number }, field: 'partNumber' });
  const { decisions, special, typed, scheme } = read.value;
  return done({
    decisions,
    special: may(actor, 'costs') ? special : special.map((part) => ({ ...part, cost: '0' })),
    typed,
    ...(scheme === undefined ? {} : { scheme }),
  });
}

/** The same for many numbers at once; with `only`, of one model, on a version of it. */
export async function readAll(
  typed: readonly string[],
  context: Context,
  only?: { modelId: string; version: string },
): Promise<Result<ReadBuild>[]> {
  const known = await reference();
  const { models, schemes } = known;
  const numbers = typed.map((each) => withoutSpecial(each.trim().toUpperCase()));
  // What is registered is found by the digits in the texts: one of them is its number.
  const digits = new Set(
    numbers.flatMap(({ text, special }) => [
      ...(text.match(/\d{1,9}/g) ?? []).map(Number),
      ...(special === undefined ? [] : [special]),
    ]),
  );
  const rows = await connected().records.registeredNumbers.findAll({
    where: { number: { [Op.in]: [...digits] } },
    raw: true,
  });
  const readable = models
    .filter(({ id }) => only === undefined || id === only.modelId)
    .flatMap(({ id }) => {
      const newest = inForceOn(known, id, context.date);
      const version = only?.version ?? newest?.id;
      const earlier = [newest, ...(schemes.get(id) ?? [])].flatMap((head) =>
        head && head.id !== version ? [head.id] : [],
      );
      return version !== undefined
        ? [
            {
              id,
              version,
              earlier,
              registered: rows
                .filter((row) => row.modelId === id)
                .map(({ key, number }) => ({ key, number })),
            },
          ]
        : [];
    });
  const asked = numbers.map(({ text, special }) => ({
    text,
    ...(special === undefined
      ? {}
      : {
          special: {
            number: special,
            parts: Object.fromEntries(
              readable.map(({ id, registered }) => [
                id,
                registered.flatMap((row) => (row.number === special ? (specialOf(row.key) ?? []) : [])),
              ]),
            ),
          },
        }),
  }));
  // A long list is read behind what people wait for.
  const ask = typed.length > 20 ? askPatiently : askEngine;
  const found = await ask('read', { numbers: asked, models: readable, context });
  return Promise.all(
    found.map(async (read, index): Promise<Result<ReadBuild>> => {
      if (read.is !== 'build')
        return fail('invalid', { ...failureOf(read, typed[index] ?? ''), field: 'partNumber' });
      const { version, decisions, special, complete, typed: toType, scheme } = read;
      return done({
        version: await versionById(version),
        decisions,
        special,
        complete,
        typed: toType,
        ...(scheme === undefined ? {} : { scheme: (await versionById(scheme)).number }),
      });
    }),
  );
}

function failureOf(read: Exclude<NumberRead, { is: 'build' }>, text: string): Failure {
  if (read.is === 'unreadable')
    return {
      code: 'number.unreadable',
      params: { text, model: read.model, rest: read.rest || '…', allowed: read.allowed.join(', ') },
    };
  return read.is === 'forbidden'
    ? { code: 'number.forbidden', params: { text, model: read.model } }
    : { code: 'number.unknown', params: { text } };
}
