/**
 * A quote being worked on: as it stands on the server, and edits that are not stored yet. What is typed shows
 * its effect at once; the server has the last word. Knows nothing of how it is drawn.
 */
import {
  isChanges,
  withChanges,
  type LineValue,
  type LineView,
  type QuoteView,
  type TypedInput,
} from '../../../contract';
import type { Answer } from '../../api';
import { localEdit, localTyped, type EditOf, type EditWay, type LineChange } from './edit';
import { requoter, sameWhereEqual, type LocalEdit } from './requote';
import { Sender, type Line, type Raw, type Trouble } from './sender';

/** What is to be seen of a session. */
export interface QuoteStand {
  /** With what was just typed, priced in the page until the server has answered. */
  view: QuoteView;
  /** How many edits are under way, and why they are not stored, where something is in the way. */
  pending: number;
  trouble: Trouble | null;
}

interface Pending {
  edits: readonly LocalEdit[];
}

/** The session of a quote. */
export class QuoteSession {
  /** As the server last told it; what an answer's changes are applied to. */
  private known: QuoteView;
  private pending: readonly Pending[] = [];
  private trouble: Trouble | null = null;
  private stand: QuoteStand;
  private readonly price = requoter();
  private readonly listeners = new Set<() => void>();
  private readonly sender: Sender;

  constructor(
    first: QuoteView,
    private readonly line: Line,
  ) {
    this.known = first;
    this.stand = { view: first, pending: 0, trouble: null };
    this.sender = new Sender({
      line,
      against: () => ({ version: this.known.version, stand: this.known.stand }),
      refresh: () => this.refresh(),
      take: (answer) => this.take(answer),
      onTrouble: (trouble) => {
        this.trouble = trouble;
        this.tell();
      },
    });
  }

  /** Calls back whenever there is something else to be seen, until the function given back is called. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** What is to be seen now: the same object until there is something else. */
  readonly seen = (): QuoteStand => this.stand;

  /** Prices the quote once before anybody types, so that the first edit is as quick as the others. */
  warm(): void {
    this.price(this.known, []);
  }

  /** Takes up what the quote is by now. */
  readonly refresh = async (): Promise<void> => {
    const newer = await this.line.read();
    if (newer.ok) this.show(newer.value);
  };

  /**
   * Sends an edit, and shows until it is answered what `local` says of it; an edit against an older version
   * brings the newer one and says whose it is.
   */
  readonly change = async <W extends EditWay>(
    way: W,
    edit: EditOf<W>,
    local: readonly LocalEdit[] = [],
  ): Promise<Answer<QuoteView>> => {
    const mine: Pending = { edits: local };
    this.pending = [...this.pending, mine];
    this.tell();
    const answer = await this.sender.send({ way, at: edit.at ?? {}, input: edit.input });
    this.pending = this.pending.filter((each) => each !== mine);
    this.tell();
    return answer;
  };

  readonly changeLine = (line: LineView, body: LineChange): Promise<Answer<QuoteView>> =>
    this.change('PATCH /quotes/{id}/lines/{line}', { at: { line: line.id }, input: body }, [
      localEdit(line.id, body),
    ]);

  readonly changeLines = (
    lines: readonly string[],
    { group, ...body }: LineChange & { group?: string | null },
  ): Promise<Answer<QuoteView>> =>
    this.change(
      'PATCH /quotes/{id}/lines/several',
      { input: { lines, ...body, ...(group === undefined ? {} : { group }) } },
      lines.map((line) => localEdit(line, body)),
    );

  readonly fillLines = (rows: readonly LineValue[]): Promise<Answer<QuoteView>> =>
    this.change(
      'PATCH /quotes/{id}/lines/values',
      { input: { rows } },
      rows.map(({ line, ...body }) => localEdit(line, body)),
    );

  readonly changeWhole = (typed: TypedInput | null): Promise<Answer<QuoteView>> =>
    this.change('PATCH /quotes/{id}', { input: { whole: typed } }, [
      { of: 'quote', whole: localTyped(typed) },
    ]);

  private show(newer: QuoteView): void {
    this.known = sameWhereEqual(this.known, newer);
    this.tell();
  }

  /** Takes up what the server answered, before anything else is sent. */
  private async take(sent: Raw): Promise<Answer<QuoteView>> {
    const answer = await this.whole(sent);
    if (answer.ok) this.show(answer.value);
    return answer;
  }

  /** An answer as the whole view, however little of it was sent. */
  private async whole(answer: Raw): Promise<Answer<QuoteView>> {
    if (!answer.ok) return answer;
    if (!isChanges(answer.value)) return { ok: true, value: answer.value };
    return answer.value.had === this.known.stand
      ? { ok: true, value: withChanges(this.known, answer.value) }
      : this.line.read();
  }

  private tell(): void {
    const edits = this.pending.flatMap((each) => each.edits);
    const view = edits.length === 0 ? this.known : (this.price(this.known, edits) ?? this.known);
    this.stand = { view, pending: this.pending.length, trouble: this.trouble };
    for (const listener of this.listeners) listener();
  }
}
