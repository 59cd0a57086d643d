/**
 * Reading a part number back: what each segment says, in every way the text can be cut; whether it can be
 * built is the engine's to say.
 */
import { featureAt, type CompiledModel, type DecisionValue, type Segment } from '../model';
import { checkCharacter } from './check';

/** One way to read a number: decisions it says, numbers and conditions, and the registered number in it. */
export interface Candidate {
  decisions: { on: string; value: DecisionValue }[];
  /** Rows and calculations of which a rounded multiple is said: of `deckLength` ten times is 180. */
  figures: { of: string; times: string; value: string }[];
  /** Conditions of the scheme, by their path in the document, and whether each is met. */
  conditions: { path: string; met: boolean }[];
  /**
   * Features of which nothing is said, and the options that are therefore not taken: because the feature is
   * not there, or none of them is.
   */
  silent: { of: string; options: string[] }[];
  sequence?: number;
}

/** Where reading failed: the character, the segment, and what was allowed there. */
export interface Misread {
  at: number;
  /** Index in the scheme; its length where something stands behind the end. */
  segment: number;
  /** Row that the segment tells of. */
  row?: string;
  allowed: string[];
}

/** Where the condition of a mark stands. */
const markPath = (segment: number, mark: number): string => `numbering.${String(segment)}.of.${String(mark)}`;

const most = 2_000;

/** All ways to read a text; where there is none, how far it went. */
export function candidates(model: CompiledModel, text: string): { found: Candidate[]; misread: Misread } {
  const reader = new Reader(model, text);
  reader.segment(0, 0, { decisions: [], figures: [], conditions: [], silent: [] });
  return { found: reader.found, misread: reader.misread };
}

/** Whether a choice may be without a value: none taken, or not there. */
function mayBeNothing(model: CompiledModel, id: string): boolean {
  const entry = model.entries[model.slots.get(id) ?? -1];
  return entry?.kind === 'feature' && (entry.feature.least === 0 || entry.shownWhen !== undefined);
}

class Reader {
  readonly found: Candidate[] = [];
  misread: Misread = { at: -1, segment: 0, allowed: [] };
  private readonly scheme: readonly Segment[];

  constructor(
    private readonly model: CompiledModel,
    private readonly text: string,
  ) {
    this.scheme = model.document.numbering;
  }

  segment(index: number, at: number, so: Candidate): void {
    if (this.found.length >= most) return;
    const segment = this.scheme[index];
    if (!segment) {
      if (at === this.text.length) this.found.push(so);
      else this.fail(at, index, undefined, []);
      return;
    }
    const before = segment.before ?? '';
    const start = at + before.length;
    const when = `numbering.${String(index)}.when`;
    const there = segment.when === undefined ? so : this.given(so, when, true);
    if (this.text.startsWith(before, at)) this.cell(segment, index, start, there);
    else
      this.fail(at, index, 'of' in segment && typeof segment.of === 'string' ? segment.of : undefined, [
        before,
      ]);
    // A conditional segment may be missing; one whose cell says nothing leaves no separator either.
    if (segment.when !== undefined) this.segment(index + 1, at, this.given(so, when, false));
    if (segment.kind === 'letters')
      this.segment(
        index + 1,
        at,
        this.nothing(
          there,
          segment.of,
          this.options(segment.of).filter(({ code }) => code !== ''),
        ),
      );
    else if (segment.kind === 'marks')
      this.segment(
        index + 1,
        at,
        segment.of.reduce((all, _, mark) => this.given(all, markPath(index, mark), false), there),
      );
    else if (segment.kind === 'code') {
      for (const silent of this.options(segment.of).filter((option) => option.code === ''))
        this.segment(index + 1, at, this.with(there, [{ on: segment.of, value: silent.id }]));
      if (mayBeNothing(this.model, segment.of))
        this.segment(index + 1, at, this.nothing(there, segment.of, this.options(segment.of)));
    }
  }

  private nothing(so: Candidate, of: string, options: readonly { id: string }[]): Candidate {
    return { ...so, silent: [...so.silent, { of, options: options.map(({ id }) => id) }] };
  }

  private cell(segment: Segment, index: number, at: number, so: Candidate): void {
    switch (segment.kind) {
      case 'text':
        if (this.text.startsWith(segment.text, at)) this.segment(index + 1, at + segment.text.length, so);
        else this.fail(at, index, undefined, [segment.text]);
        return;
      case 'check': {
        const wanted = checkCharacter(this.text.slice(0, at));
        if (this.text[at] === wanted) this.segment(index + 1, at + 1, so);
        else this.fail(at, index, undefined, [wanted]);
        return;
      }
      case 'code': {
        const options = this.options(segment.of)
          .filter((option) => option.code !== '')
          .sort((a, b) => b.code.length - a.code.length);
        for (const { id, code } of options)
          if (this.text.startsWith(code, at))
            this.segment(index + 1, at + code.length, this.with(so, [{ on: segment.of, value: id }]));
        if (!options.some(({ code }) => this.text.startsWith(code, at)))
          this.fail(at, index, segment.of, options.map((option) => option.code).sort());
        return;
      }
      case 'letters':
        this.some(segment.of, 0, index, at, at, [], so);
        return;
      case 'marks':
        this.marks(segment, 0, index, at, at, so);
        return;
      case 'number': {
        const sign = this.text[at] === '-' ? '-' : '';
        const digits = /^\d+/.exec(this.text.slice(at + sign.length))?.[0] ?? '';
        if (digits.length < segment.width)
          this.fail(at + sign.length + digits.length, index, segment.of, ['0-9']);
        for (let length = segment.width; length <= digits.length; length++) {
          const value = String(Number(sign + digits.slice(0, length)));
          this.segment(index + 1, at + sign.length + length, {
            ...so,
            figures: [...so.figures, { of: segment.of, times: segment.times ?? '1', value }],
          });
        }
        return;
      }
      case 'sequence': {
        const digits = /^\d+/.exec(this.text.slice(at))?.[0] ?? '';
        if (digits.length < segment.width) this.fail(at + digits.length, index, segment.of[0], ['0-9']);
        else
          this.segment(index + 1, at + segment.width, {
            ...so,
            sequence: Number(digits.slice(0, segment.width)),
          });
      }
    }
  }

  /** Letters of a multiple choice stand in the order of its options. */
  private some(
    feature: string,
    from: number,
    index: number,
    start: number,
    at: number,
    taken: string[],
    so: Candidate,
  ): void {
    const options = this.options(feature);
    for (let next = from; next < options.length; next++) {
      const { id, code } = options[next] as { id: string; code: string };
      if (code !== '' && this.text.startsWith(code, at))
        this.some(feature, next + 1, index, start, at + code.length, [...taken, id], so);
    }
    if (at > start) this.segment(index + 1, at, this.with(so, this.letters(feature, taken)));
    else this.fail(at, index, feature, options.map((option) => option.code).filter(Boolean));
  }

  /** Marks stand in the order of the scheme, each telling whether its condition is met. */
  private marks(
    segment: Extract<Segment, { kind: 'marks' }>,
    from: number,
    index: number,
    start: number,
    at: number,
    so: Candidate,
  ): void {
    const mark = segment.of[from];
    if (!mark) {
      if (at > start) this.segment(index + 1, at, so);
      else
        this.fail(
          at,
          index,
          undefined,
          segment.of.map(({ text }) => text),
        );
      return;
    }
    if (this.text.startsWith(mark.text, at))
      this.marks(
        segment,
        from + 1,
        index,
        start,
        at + mark.text.length,
        this.given(so, markPath(index, from), true),
      );
    this.marks(segment, from + 1, index, start, at, this.given(so, markPath(index, from), false));
  }

  private given(so: Candidate, path: string, met: boolean): Candidate {
    return { ...so, conditions: [...so.conditions, { path, met }] };
  }

  /** What letters say of the options that have some; what has none is not told. */
  private letters(feature: string, taken: readonly string[]): Candidate['decisions'] {
    return this.options(feature)
      .filter(({ code }) => code !== '')
      .map(({ id }) => ({ on: `${feature}.${id}`, value: taken.includes(id) }));
  }

  private options(feature: string): { id: string; code: string }[] {
    return (featureAt(this.model, feature)?.options ?? []).map(({ id, code }) => ({ id, code: code ?? '' }));
  }

  private with(so: Candidate, decisions: Candidate['decisions']): Candidate {
    return { ...so, decisions: [...so.decisions, ...decisions] };
  }

  private fail(at: number, segment: number, row: string | undefined, allowed: string[]): void {
    if (at < this.misread.at) return;
    if (at > this.misread.at)
      this.misread = { at, segment, allowed: [], ...(row === undefined ? {} : { row }) };
    this.misread.allowed = [...new Set([...this.misread.allowed, ...allowed])];
  }
}
