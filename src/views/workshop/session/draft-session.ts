/**
 * A draft while somebody works on it: each edit is done here at once, sent in its order, and tried out; what others did
 * in between comes in with the answer. It knows nothing of how it is drawn.
 */
import type { Scene } from '../../../core/drawing';
import type { Decision, RuleLook, TableLook, Target, TestResult } from '../../../core/engine';
import type { ModelDocument } from '../../../core/model';
import { edited, type Edit, type EditProblem } from '../../../core/modelling';
import type { DraftView, EditedView, StepView } from '../../../contract';
import type { Why } from '../../../workers/bench/types';
import type { Tried } from '../../../workers/draft/computation';
import type { Answer, Refusal } from '../../api';

/** What a session lives in: whoever stores what is done, and whoever tries it out. */
export interface Surroundings {
  send: (version: number, edit: Edit) => Promise<Answer<EditedView>>;
  step: (which: 'undo' | 'redo', version: number) => Promise<Answer<StepView>>;
  /** Passes some time before what could not be sent is sent again. */
  pause: () => Promise<void>;
  /** Passes the time in which another key may come, while one types. */
  rest: () => Promise<void>;
  /** The draft as it is stored. */
  load: () => Promise<Answer<DraftView>>;
  attempt: (document: ModelDocument, decisions: readonly Decision[], values: TryValues) => Promise<Tried>;
  /** Runs the tests of what was tried last; nothing where something else is tried meanwhile. */
  test: (document: ModelDocument) => Promise<readonly TestResult[] | null>;
  /** Looks at a rule of what was tried last. */
  look: (document: ModelDocument, rule: string, values: TryValues) => Promise<RuleLook | null>;
  /** Looks at the rows of a table rule. */
  table: (document: ModelDocument, rule: string) => Promise<TableLook | null>;
  /** Why something cannot be had in what was tried last. */
  why: (
    document: ModelDocument,
    decisions: readonly Decision[],
    values: TryValues,
    target: Target,
  ) => Promise<Why | null>;
  /** The drawing of some build that keeps what is decided. */
  example: (
    document: ModelDocument,
    decisions: readonly Decision[],
    values: TryValues,
  ) => Promise<Scene | null>;
}

/** Where something is tried out, by the inputs of the context. */
export type TryValues = Readonly<Record<string, string>>;

/** What is to be seen of a draft. */
export interface DraftStand {
  document: ModelDocument;
  version: number;
  canUndo: boolean;
  canRedo: boolean;
  saving: 'saved' | 'saving' | 'offline' | 'refused';
  /** Why the last thing was not done. */
  refusals: readonly Refusal[];
  /** Who else edited it since it was opened. */
  others: readonly string[];
  /** What came of it last; null before anything did. */
  tried: Tried | null;
  /** What came of its tests last. */
  tests: readonly TestResult[];
  /** It is being tried out anew. */
  trying: boolean;
  decisions: readonly Decision[];
  context: TryValues;
}

/** An edit that is not stored yet. */
interface Waiting {
  edit: Edit;
  /** What is typed into, one key after another: edits of the same are stored as one. */
  joins?: string | undefined;
  /** It is on its way, so nothing joins it any more. */
  sent?: boolean;
}

/** Both edits as one; what the later sets again is left out of the earlier. */
function joined(one: Edit, other: Edit): Edit {
  const parts = (edit: Edit): readonly Edit[] => (edit.do === 'several' ? edit.edits : [edit]);
  const place = (edit: Edit): string | null =>
    edit.do === 'set' ? JSON.stringify([edit.at, edit.name]) : null;
  const later = parts(other);
  const set = new Set(later.map(place));
  const earlier = parts(one).filter((edit) => place(edit) === null || !set.has(place(edit)));
  return { do: 'several', edits: [...earlier, ...later] };
}

/** The session of a draft, from the page's opening to its end. */
export class DraftSession {
  private stand: DraftStand;
  private readonly listeners = new Set<() => void>();
  /** Edits done here and not stored yet. */
  private waiting: Waiting[] = [];
  /** Whoever waits for all to be stored does not wait for more keys. */
  private hurrying = false;
  private sending: Promise<void> = Promise.resolve();
  private tries = 0;
  /** The document whose tests were run last. */
  private tested: ModelDocument | null = null;

  constructor(
    view: Pick<DraftView, 'document' | 'version' | 'canUndo' | 'canRedo'>,
    private readonly around: Surroundings,
  ) {
    const { document, version, canUndo, canRedo } = view;
    this.stand = {
      document,
      version,
      canUndo,
      canRedo,
      saving: 'saved',
      refusals: [],
      others: [],
      tried: null,
      tests: [],
      trying: false,
      decisions: [],
      context: {},
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly seen = (): DraftStand => this.stand;

  private tell(change: Partial<DraftStand>): void {
    this.stand = { ...this.stand, ...change };
    for (const listener of this.listeners) listener();
  }

  /**
   * Does an edit, or says why it cannot be done. `joins` names what is typed into: edits of the same that come one
   * after another are one step to take back.
   */
  readonly edit = (edit: Edit, joins?: string): EditProblem | null => {
    if (edit.do === 'several' && edit.edits.length === 0) return null;
    const result = edited(this.stand.document, edit);
    if (!result.ok) return result.problem;
    const last = this.waiting.at(-1);
    if (joins !== undefined && last?.joins === joins && !last.sent) last.edit = joined(last.edit, edit);
    else {
      this.waiting.push({ edit, joins });
      this.sending = this.sending.then(() => this.store());
    }
    this.tell({ document: result.document, saving: 'saving', refusals: [], canUndo: true, canRedo: false });
    void this.attempt();
    return null;
  };

  /** Takes the last edit back, or makes again what was taken back, once all that was done is stored. */
  readonly step = (which: 'undo' | 'redo'): Promise<void> => {
    this.hurrying = true;
    this.sending = this.sending.then(async () => {
      this.hurrying = false;
      const answer = await this.around.step(which, this.stand.version);
      if (!answer.ok) return this.reload(answer.failures);
      const { version, edit, canUndo, canRedo } = answer.value;
      const result = edited(this.stand.document, edit);
      if (!result.ok) return this.reload([]);
      this.tell({ document: result.document, version, canUndo, canRedo, refusals: [] });
      return this.attempt();
    });
    return this.sending;
  };

  /** Stores the oldest edit that waits; for as long as the server cannot be reached, again and again. */
  private async store(): Promise<void> {
    const [first] = this.waiting;
    if (!first) return;
    if (first.joins !== undefined)
      for (let seen; seen !== first.edit && !this.isHurried();) {
        seen = first.edit;
        await this.around.rest();
      }
    first.sent = true;
    const { edit } = first;
    let answer = await this.around.send(this.stand.version, edit);
    while (!answer.ok && answer.status === 0) {
      this.tell({ saving: 'offline' });
      await this.around.pause();
      answer = await this.around.send(this.stand.version, edit);
    }
    this.waiting.shift();
    if (!answer.ok) return this.reload(answer.failures);
    const { version, between, canUndo, canRedo } = answer.value;
    if (between.length > 0)
      return this.reload(
        [],
        between.map(({ by }) => by),
      );
    this.tell({ version, canUndo, canRedo, saving: this.waiting.length > 0 ? 'saving' : 'saved' });
  }

  /** Takes the draft as it is stored, and does again what waits; what no longer fits it is told of. */
  private async reload(refused: readonly Refusal[], others: readonly string[] = []): Promise<void> {
    const answer = await this.around.load();
    if (!answer.ok) {
      this.tell({ saving: 'refused', refusals: answer.failures });
      return;
    }
    let { document } = answer.value;
    const lost: Refusal[] = [];
    this.waiting = this.waiting.filter(({ edit }) => {
      const result = edited(document, edit);
      if (result.ok) document = result.document;
      else lost.push({ message: '', ...result.problem });
      return result.ok;
    });
    const refusals = [...refused, ...lost];
    const { version, canUndo, canRedo } = answer.value;
    this.tell({
      document,
      version,
      canUndo,
      canRedo,
      refusals,
      others: [...new Set([...this.stand.others, ...others])],
      saving: this.waiting.length > 0 ? 'saving' : refusals.length > 0 ? 'refused' : 'saved',
    });
    return this.attempt();
  }

  /** Makes a decision on the try-out, or takes it back where there is no value. */
  readonly decide = (on: string, value: Decision['value'] | undefined): void => {
    const others = this.stand.decisions.filter((each) => each.on !== on);
    this.tell({ decisions: value === undefined ? others : [...others, { on, value }] });
    void this.attempt();
  };

  readonly begin = (): void => {
    this.tell({ decisions: [] });
    void this.attempt();
  };

  readonly place = (input: string, value: string): void => {
    this.tell({ context: { ...this.stand.context, [input]: value } });
    void this.attempt();
  };

  /** Tries it out; of several under way only the last is shown. */
  readonly attempt = async (): Promise<void> => {
    const turn = (this.tries += 1);
    this.tell({ trying: true });
    const { document, decisions, context } = this.stand;
    const tried = await this.around.attempt(document, decisions, context);
    if (turn !== this.tries) return;
    // What is shown of a model that compiles stays while the next does not.
    const seen = tried.seen ?? this.stand.tried?.seen;
    this.tell({ tried: { problems: tried.problems, ...(seen ? { seen } : {}) }, trying: false });
    void this.test(document);
  };

  /** Runs the tests of a document behind its try, where it is another than the one that was tested. */
  private async test(document: ModelDocument): Promise<void> {
    if (this.tested === document) return;
    const tests = await this.around.test(document);
    if (tests === null || document !== this.stand.document) return;
    this.tested = document;
    this.tell({ tests });
  }

  /** Makes other decisions than those there were, as a way out does. */
  readonly take = (decisions: readonly Decision[]): void => {
    this.tell({ decisions });
    void this.attempt();
  };

  /** What a rule of the draft as it stands meets, repeats and takes away. */
  readonly look = (rule: string): Promise<RuleLook | null> =>
    this.around.look(this.stand.document, rule, this.stand.context);

  /** Which rows of a table rule overlap, and what none of them lets pass. */
  readonly table = (rule: string): Promise<TableLook | null> => this.around.table(this.stand.document, rule);

  /** Why something cannot be had in what is tried. */
  readonly why = (target: Target): Promise<Why | null> => {
    const { document, decisions, context } = this.stand;
    return this.around.why(document, decisions, context, target);
  };

  /** The drawing of some build that keeps what is decided. */
  readonly example = (): Promise<Scene | null> => {
    const { document, decisions, context } = this.stand;
    return this.around.example(document, decisions, context);
  };

  /** Resolves once all that was done is stored. */
  readonly settled = async (): Promise<void> => {
    // What is done while this waits is waited for too.
    for (let last; last !== this.sending;) {
      this.hurrying = true;
      last = this.sending;
      await last;
    }
    this.hurrying = false;
  };

  /** Asked while others may begin to wait. */
  private isHurried(): boolean {
    return this.hurrying;
  }

  /** Takes the draft as it is stored. */
  readonly refresh = (): Promise<void> => {
    this.sending = this.sending.then(() => this.reload([]));
    return this.sending;
  };
}
