/** Part numbers read back. */
import {
  checkDecisions,
  OutOfBudget,
  readNumber,
  type Context,
  type Decision,
} from '../../../../core/engine';
import { registeredDecisions } from '../../../../core/numbering';
import type { SpecialPart } from '../../../../core/builds';
import type { Surroundings } from '../thread';
import type { Kept } from './kept';

/**
 * By model, what its registered numbers stand for, and the versions whose schemes are tried where its own
 * reads nothing.
 */
export interface ReadableModel {
  id: string;
  version: string;
  earlier: readonly string[];
  registered: { key: string; number: number }[];
}

/** What a model makes of a part number. */
export type NumberRead =
  | {
      is: 'build';
      model: string;
      version: string;
      decisions: Decision[];
      special: SpecialPart[];
      complete: boolean;
      /** Texts of which the number says only that they are there. */
      typed: string[];
      /** The earlier version by whose scheme it was read. */
      scheme?: string;
    }
  | { is: 'unreadable'; model: string; rest: string; allowed: string[] }
  | { is: 'forbidden'; model: string }
  | { is: 'unknown' };

/** Tasks that read numbers. */
export const numberTasks = (kept: Kept) => ({
  /** What part numbers stand for, each of whatever model it is. */
  read: (
    {
      numbers,
      models,
      context,
    }: {
      numbers: readonly {
        text: string;
        special?: { number: number; parts: Readonly<Record<string, SpecialPart[]>> };
      }[];
      models: readonly ReadableModel[];
      context: Context;
    },
    { stopped, progress }: Surroundings,
  ): NumberRead[] =>
    numbers.map(({ text, special }, index) => {
      if (index % 100 === 99) progress(index + 1);
      let nearest: { read: number; found: NumberRead } = { read: -1, found: { is: 'unknown' } };
      // What is printed by today's schemes comes before what was printed by those of before.
      const tries = [
        ...models.map((model) => ({ ...model, scheme: model.version })),
        ...models.flatMap((model) => model.earlier.map((scheme) => ({ ...model, scheme }))),
      ];
      for (const { id, version, scheme, registered } of tries) {
        if (stopped()) throw new OutOfBudget();
        const answer = readNumber(kept.engine(scheme, context, stopped), text, (sequence) =>
          registeredDecisions(
            registered.find((row) => row.number === sequence && !row.key.startsWith('special='))?.key ?? '',
          ),
        );
        const parts = special?.parts[id] ?? [];
        if (answer.is === 'build' && (!special || parts.length > 0)) {
          const lost =
            scheme === version
              ? []
              : checkDecisions(kept.model(version), answer.decisions).map(({ on }) => on);
          const decisions = answer.decisions.filter(({ on }) => !lost.includes(on));
          return {
            is: 'build',
            model: id,
            version,
            decisions,
            special: parts,
            typed: answer.typed,
            complete:
              kept.engine(version, context, stopped).state({ decisions }).complete &&
              answer.typed.length === 0,
            ...(scheme === version ? {} : { scheme }),
          };
        }
        const read = scheme !== version ? -1 : answer.is === 'unreadable' ? answer.at : text.length;
        if (read > Math.max(nearest.read, 1))
          nearest = {
            read,
            found:
              answer.is === 'unreadable'
                ? {
                    is: 'unreadable',
                    model: id,
                    rest: text.slice(answer.at),
                    allowed: answer.allowed.slice(0, 12),
                  }
                : answer.is === 'forbidden'
                  ? { is: 'forbidden', model: id }
                  : { is: 'unknown' },
          };
      }
      return nearest.found;
    }),
});
