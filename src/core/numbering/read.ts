/** Reading a part number back: what each segment says, in every way the text can be cut; whether it can be built is the engine's to say. */
import { featureAt, type CompiledModel, type DecisionValue, type Segment } from '../model';
import { checkCharacter } from './check';

/** One way to read a number: decisions it says, figures it says of calculations, and the registered number in it. */
export interface Candidate {
  decisions: { on: string; value: DecisionValue }[];
  /** FEEL conditions, such as `deckLength * 10 = 180`. */
  conditions: string[];
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

const most = 2_000;

/** All ways to read a text; where there is none, how far it went. */
export function candidates(model: CompiledModel, text: string): { found: Candidate[]; misread: Misread } {
  const reader = new Reader(model, text);
  reader.segment(0, 0, { decisions: [], conditions: [] });
  return { found: reader.found, misread: reader.misread };
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
    if (this.text.startsWith(before, at)) this.cell(segment, index, start, so);
    else this.fail(at, index, 'of' in segment && typeof segment.of === 'string' ? segment.of : undefined, [before]);
    // A conditional segment may be missing; one whose cell says nothing leaves no separator either.
    if (segment.when !== undefined) this.segment(index + 1, at, so);
    else if (segment.kind === 'letters') this.segment(index + 1, at, this.with(so, this.letters(segment.of, [])));
    else if (segment.kind === 'code') for (const silent of this.options(segment.of).filter((option) => option.code === '')) this.segment(index + 1, at, this.with(so, [{ on: segment.of, value: silent.id }]));
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
        const options = this.options(segment.of).filter((option) => option.code !== '').sort((a, b) => b.code.length - a.code.length);
        for (const { id, code } of options) if (this.text.startsWith(code, at)) this.segment(index + 1, at + code.length, this.with(so, [{ on: segment.of, value: id }]));
        if (!options.some(({ code }) => this.text.startsWith(code, at))) this.fail(at, index, segment.of, options.map((option) => option.code).sort());
        return;
      }
      case 'letters':
        this.some(segment.of, 0, index, at, at, [], so);
        return;
      case 'number': {
        const digits = /^\d+/.exec(this.text.slice(at))?.[0] ?? '';
        if (digits.length < segment.width) this.fail(at + digits.length, index, segment.of, ['0-9']);
        for (let length = segment.width; length <= digits.length; length++) {
          const value = String(Number(digits.slice(0, length)));
          this.segment(index + 1, at + length, { ...so, conditions: [...so.conditions, `decimal(${segment.of} * ${segment.times ?? '1'}, 0) = ${value}`] });
        }
        return;
      }
      case 'sequence': {
        const digits = /^\d+/.exec(this.text.slice(at))?.[0] ?? '';
        if (digits.length < segment.width) this.fail(at + digits.length, index, segment.of[0], ['0-9']);
        else this.segment(index + 1, at + segment.width, { ...so, sequence: Number(digits.slice(0, segment.width)) });
      }
    }
  }

  /** Letters of a multiple choice stand in the order of its options. */
  private some(feature: string, from: number, index: number, start: number, at: number, taken: string[], so: Candidate): void {
    const options = this.options(feature);
    for (let next = from; next < options.length; next++) {
      const { id, code } = options[next] as { id: string; code: string };
      if (code !== '' && this.text.startsWith(code, at)) this.some(feature, next + 1, index, start, at + code.length, [...taken, id], so);
    }
    if (at > start) this.segment(index + 1, at, this.with(so, this.letters(feature, taken)));
    else this.fail(at, index, feature, options.map((option) => option.code).filter(Boolean));
  }

  private letters(feature: string, taken: readonly string[]): Candidate['decisions'] {
    return this.options(feature).map(({ id }) => ({ on: `${feature}.${id}`, value: taken.includes(id) }));
  }

  private options(feature: string): { id: string; code: string }[] {
    return (featureAt(this.model, feature)?.options ?? []).map(({ id, code }) => ({ id, code: code ?? '' }));
  }

  private with(so: Candidate, decisions: Candidate['decisions']): Candidate {
    return { ...so, decisions: [...so.decisions, ...decisions] };
  }

  private fail(at: number, segment: number, row: string | undefined, allowed: string[]): void {
    if (at < this.misread.at) return;
    if (at > this.misread.at) this.misread = { at, segment, allowed: [], ...(row === undefined ? {} : { row }) };
    this.misread.allowed = [...new Set([...this.misread.allowed, ...allowed])];
  }
}
