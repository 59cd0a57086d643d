/**
 * What registered numbers stand for: the decisions that the codes of a scheme do not say, written as one text
 * that the register keeps.
 * A row stands with the quantities of what it takes and with the builds that it brings, each as far as its
 * own scheme tells it.
 */
import { Exact } from '../exact';
import {
  open,
  Reading,
  buildsInside,
  rowsRead,
  type CompiledModel,
  type DecisionValue,
  type Values,
} from '../model';

interface Said {
  on: string;
  value: DecisionValue;
}

/** Numbers by what they were registered for, so that none is ever shown for another build. */
export type Registered = Readonly<Record<string, number>>;

/** What has to be registered, under the model whose number it is. */
export interface Registration {
  model: string;
  key: string;
}

/** All that has to be registered for a build and those inside it. */
export function registrations(model: CompiledModel, values: Values): Registration[] {
  const key = sequenceKey(model, values);
  const inside = buildsInside(new Reading(model, values)).flatMap(({ build, values: own }) =>
    registrations(build.model, own),
  );
  return [...(key === null ? [] : [{ model: model.document.id, key }]), ...inside];
}

/** The name of a registration among those registered. */
export const registeredAs = ({ model, key }: Registration): string => `${model} ${key}`;

/** The number registered for a build, where it needs one and has it. */
export function registeredOf(
  registered: Registered,
  model: CompiledModel,
  values: Values,
): number | undefined {
  const key = sequenceKey(model, values);
  return key === null ? undefined : registered[registeredAs({ model: model.document.id, key })];
}

/**
 * The text under which a build's number is registered; null where the scheme needs no registered number for
 * this build.
 */
export function sequenceKey(model: CompiledModel, values: Values): string | null {
  const reading = new Reading(model, values);
  const wanted = model.document.numbering.flatMap((segment, index) =>
    segment.kind === 'sequence' && reading.holdsAt(`numbering.${String(index)}.when`) === true
      ? segment.of
      : [],
  );
  if (wanted.length === 0) return null;
  return written(wanted.flatMap((id) => saidOf(reading, id)));
}

/** What a text of the register stands for. */
export function registeredDecisions(key: string): Said[] {
  return key.split(';').flatMap((part): Said[] => {
    const at = part.indexOf('=');
    const value = part.slice(at + 1);
    if (at < 1 || value === '' || value === 'null') return [];
    return [
      {
        on: part.slice(0, at),
        value:
          value === '!'
            ? null
            : value === '!true'
              ? true
              : value === '!false'
                ? false
                : decodeURIComponent(value),
      },
    ];
  });
}

/**
 * Each row once, in the order first said; an exclamation mark tells no value, yes and no from texts that say
 * so.
 */
function written(all: readonly Said[]): string {
  const byRow = new Map(
    all.map(({ on, value }) => [
      on,
      typeof value === 'string'
        ? value.replace(/[%;=!]/g, (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`)
        : value === null
          ? '!'
          : `!${String(value)}`,
    ]),
  );
  return [...byRow].map(([on, value]) => `${on}=${value}`).join(';');
}

/** A row, or the rows behind a calculation, with all that they bring. */
function saidOf(reading: Reading, id: string): Said[] {
  const { model } = reading;
  const entry = model.entries[model.slots.get(id) ?? -1];
  if (entry?.kind === 'calculation')
    return [...rowsRead(model, [entry.formula])].flatMap((row) => saidOf(reading, row));
  if (!entry || entry.kind === 'context') return [];
  const value = reading.named(id);
  const { shownWhen } = entry.kind === 'text' ? (model.entries[entry.length] as typeof entry) : entry;
  // What is not there has no value to say, and comes back by itself.
  if (value === open || (value === null && shownWhen && reading.run(shownWhen) !== true)) return [];
  const own: Said[] =
    entry.kind === 'feature' && entry.many
      ? entry.feature.options.map((option) => ({
          on: `${id}.${option.id}`,
          value: Array.isArray(value) && value.includes(option.id),
        }))
      : [
          {
            on: id,
            value:
              value === null || typeof value === 'boolean'
                ? value
                : value instanceof Exact
                  ? value.toString()
                  : String(value),
          },
        ];
  const taken = Array.isArray(value) ? value : [value];
  const quantities = taken.flatMap((option) =>
    typeof option === 'string' ? [`${id}/${option}/quantity`] : value === true ? [`${id}/quantity`] : [],
  );
  return [
    ...own,
    ...quantities
      .filter((row) => model.entries[model.slots.get(row) ?? -1]?.kind === 'number')
      .flatMap((row) => saidOf(reading, row)),
    ...saidInside(reading, id),
  ];
}

/** What the schemes of the builds that a row brings tell of them, under their names out here. */
function saidInside(reading: Reading, row: string): Said[] {
  return buildsInside(reading)
    .filter(({ pick }) => pick.row === row)
    .flatMap(({ build, values }) => {
      const inner = new Reading(build.model, values);
      const outward = (on: string): string => {
        const [head = '', option] = on.split('.');
        const full = build.names.get(head) ?? `${build.place}/${head}`;
        return option === undefined ? full : `${full}.${option}`;
      };
      return rowsTold(build.model)
        .flatMap((id) => saidOf(inner, id))
        .map(({ on, value }) => ({ on: outward(on), value }));
    });
}

/** The rows that a scheme tells of, in its order. */
export function rowsTold(model: CompiledModel): string[] {
  const { document, entries, formulas, slots } = model;
  const rows = document.numbering.flatMap((segment, index): string[] => {
    const of =
      segment.kind === 'text' || segment.kind === 'check' || segment.kind === 'marks'
        ? []
        : segment.kind === 'sequence'
          ? segment.of
          : [segment.of];
    const paths = [
      `numbering.${String(index)}.when`,
      ...(segment.kind === 'marks'
        ? segment.of.map((_, at) => `numbering.${String(index)}.of.${String(at)}`)
        : []),
    ];
    const named = of.flatMap((id) => {
      const entry = entries[slots.get(id) ?? -1];
      return entry?.kind === 'calculation' ? [...rowsRead(model, [entry.formula])] : [id];
    });
    return [
      ...named,
      ...rowsRead(
        model,
        paths.flatMap((path) => formulas.get(path) ?? []),
      ),
    ];
  });
  return [...new Set(rows)];
}
