/** Where a quote stands with the limits of who owns it, and what has been signed. */
import { QueryTypes } from 'sequelize';
import { exact, type Exact } from '../../../core/exact';
import {
  figuresOf,
  judge,
  needsOf,
  policiesHit,
  recurringIn,
  type FactsOf,
  type policyNames,
  type Judged,
  type Limit,
  type LineFigures,
  type LinePrice,
  type Need,
  type Typed,
} from '../../../core/pricing';
import { shownState, type ShownState } from '../../../core/quotes';
import { type AskedSignOff, type SignOffsOfQuote, type SignOffView } from '../../../contract';
import type { Texts } from '../../../core/model';
import { connected, type LimitRow, type PolicyRow, type RevisionRow, type SignOffRow } from '../../../data';
import { may, type Actor } from '../../access/actor';
import { answersAs, inPlaceOf } from '../../access/deputies';
import { today } from '../../kernel/clock';
import { counted, type QuotedLine } from '../figures/quote-pricing';
import type { QuoteState } from '../quote-state';
import { limitsOn, policiesOn } from '../../settings/in-force';
import { nameOf, reference } from '../../settings/reference-data';
import { deliveredTo } from '../../settings/addressed';

/** Where a quote stands with the limits of who owns it. */
export interface Standing {
  limits: Limit[];
  figures: LineFigures[];
  judged: Judged[];
  needs: Need[];
  /** Names of the policies that the quote runs into. */
  policies: Map<string, Texts>;
  rows: readonly SignOffRow[];
  ownerId: string;
}

/** What follows from a price alone is worked out once for it: of a thousand lines mostly one has another. */
const figured = new WeakMap<LinePrice, { whole: string | undefined; figures: LineFigures }>();
const judgedOnce = new WeakMap<LineFigures, { by: string; judged: Judged[] }>();
const shownOnce = new WeakMap<Judged, SignOffsOfQuote['judged'][number]>();
const ungiven = new WeakMap<LineFigures, Exact>();

function remembered<K extends object, V>(known: WeakMap<K, V>, key: K, make: () => V): V {
  const found = known.get(key);
  if (found !== undefined) return found;
  const made = make();
  known.set(key, made);
  return made;
}

function figuresIn({ line, item, price }: QuotedLine, whole: string | undefined): LineFigures {
  const known = figured.get(price);
  if (known?.whole === whole && known) return known.figures;
  const figures = figuresOf(line.id, item.family, price, whole);
  figured.set(price, { whole, figures });
  return figures;
}

/** What lines are judged by, with what is typed for the whole quote. */
export function linesOf(priced: readonly QuotedLine[], typed: Typed | null): LineFigures[] {
  const sold = counted(priced);
  const whole = wholeRate(sold, typed);
  return sold.map((each) => figuresIn(each, whole));
}

/**
 * The share that the whole-quote discount takes off every line that it is spread over: as typed, else of all
 * of them together.
 */
function wholeRate(sold: readonly QuotedLine[], typed: Typed | null): string | undefined {
  if (!typed || typed.by === 'rate') return typed?.value;
  const open = sold.filter(({ line, item }) => !line.locked && item.discountable);
  const sum = (of: (price: LinePrice) => string) =>
    open.reduce((all, { price }) => all.plus(of(price)), exact(0));
  const before = sum(({ before: given, net }) => given ?? net);
  return before.isZero()
    ? undefined
    : sum(({ share }) => share ?? '0')
        .div(before)
        .toString();
}

/** Every line by every limit of a role; `by` names the limits. */
const judgeEach = (
  lines: readonly LineFigures[],
  limits: readonly Limit[],
  role: string,
  by: string,
): Judged[] =>
  lines.flatMap((line) => {
    const known = judgedOnce.get(line);
    if (known?.by === by) return known.judged;
    const judged = judge([line], limits, role);
    judgedOnce.set(line, { by, judged });
    return judged;
  });

/** Limits and policies by which quotes are judged instead of those in force; `name` tells them from all others. */
export interface Measure {
  name: string;
  limits: readonly LimitRow[];
  policies: readonly PolicyRow[];
}

/** Where a quote stands, by what has been signed of it and the limits of its owner's role. */
export async function standingOf(
  { quote, revision, signOffs: rows }: Pick<QuoteState, 'quote' | 'revision' | 'signOffs'>,
  priced: readonly QuotedLine[],
  measure?: Measure,
): Promise<Standing> {
  const known = await reference();
  const role = known.people.get(quote.ownerId)?.role ?? '';
  const own = (measure?.limits ?? limitsOn(known, today()))
    .filter((limit) => limit.role === role)
    .map(({ family, by, target, limitAt, floor, signs, above }): Limit => ({
      role,
      ...(family === null ? {} : { family }),
      by,
      target: exact(target).toString(),
      limit: exact(limitAt).toString(),
      floor: exact(floor).toString(),
      signs,
      above,
    }));
  const figures = linesOf(priced, revision.whole);
  const judged = judgeEach(figures, own, role, measure ? measure.name : `${known.stamp} ${today()} ${role}`);
  const signed = rows.filter(({ state }) => state === 'yes' || state === 'counter');
  const policies = (measure?.policies ?? policiesOn(known, today())).filter((policy) => policy.role === role);
  const hit =
    policies.length === 0
      ? []
      : policiesHit(
          policies.map(({ id, condition, signs }) => ({ id, when: condition, signs })),
          factsOf(revision, priced),
        );
  return {
    limits: own,
    figures,
    judged,
    needs: needsOf(judged, signed, hit),
    policies: new Map(policies.map(({ id, name }) => [id, name])),
    rows,
    ownerId: quote.ownerId,
  };
}

/** What policies read of a quote. */
export function factsOf(
  { customer, lease, whole: typed }: RevisionRow,
  priced: readonly QuotedLine[],
): FactsOf<typeof policyNames> {
  const sold = counted(priced);
  const sum = (of: (each: QuotedLine) => string | number) =>
    sold.reduce((all, each) => all.plus(of(each)), exact(0));
  const net = sum(({ price }) => price.net);
  // What the lines would come to without anything given away.
  const whole = wholeRate(sold, typed);
  const before = sold.reduce(
    (all, each) =>
      all.plus(
        remembered(ungiven, figuresIn(each, whole), () => {
          const kept = exact(1).minus(figuresIn(each, whole).discount);
          return kept.isZero() ? exact(each.price.list) : exact(each.price.net).div(kept);
        }),
      ),
    exact(0),
  );
  const cost = sold.every(({ price }) => price.cost !== undefined)
    ? sum(({ price }) => price.cost ?? '0')
    : undefined;
  return {
    net: net.toString(),
    discount: before.isZero() ? '0' : exact(1).minus(net.div(before)).toDecimalPlaces(18).toString(),
    margin: cost === undefined || net.isZero() ? null : net.minus(cost).div(net).toString(),
    paymentDays: String(customer.paymentDays ?? 30),
    specialParts: sum(({ build }) => build?.special.length ?? 0).toString(),
    passedWarnings: sum(
      ({ build }) => build?.outcome.warnings.filter((warning) => warning.passed).length ?? 0,
    ).toString(),
    months: String(
      Math.max(
        0,
        ...sold.flatMap(({ price }) => recurringIn(price).map(({ recurring }) => recurring.months)),
      ),
    ),
    lines: String(sold.length),
    customerClass: customer.class,
    country: deliveredTo(customer),
    leased: lease !== null,
  };
}

/** Roles that have not signed what the quote asks of them. */
export async function unsigned(state: QuoteState, priced: readonly QuotedLine[]): Promise<string[]> {
  const { needs } = await standingOf(state, priced);
  return needs.filter(({ held }) => !held).map(({ role }) => role);
}

/** Whether somebody must sign, or has been asked to; nothing where all is within limits or signed. */
export function signingIn({ needs, rows }: Standing): 'needed' | 'asked' | undefined {
  if (needs.every(({ held }) => held)) return undefined;
  return rows.some(({ state }) => state === 'asked') ? 'asked' : 'needed';
}

/** Has lines, all of which can be sold as they stand. */
export function sellable(priced: readonly QuotedLine[]): boolean {
  const sold = counted(priced);
  return sold.length > 0 && sold.every(({ problems }) => problems.length === 0);
}

/** How a revision is shown. */
export const shownAs = (
  { state, validUntil }: Pick<RevisionRow, 'state' | 'validUntil'>,
  priced: readonly QuotedLine[],
  signing: 'needed' | 'asked' | undefined,
): ShownState =>
  shownState(
    { state, validUntil, asked: signing === 'asked', sendable: signing === undefined && sellable(priced) },
    today(),
  );

/** All that is told of it on the quote; nothing for those who may not see margins. */
export async function signOffsOf(
  actor: Actor,
  { limits, judged, needs, rows, policies, ownerId }: Standing,
  priced: readonly QuotedLine[],
): Promise<SignOffsOfQuote | undefined> {
  if (!may(actor, 'costs')) return undefined;
  const known = await reference();
  const position = new Map(priced.map(({ line }) => [line.id, line.position]));
  const history = rows.map((row): SignOffView => ({
    id: row.id,
    role: row.role,
    reason: row.reason,
    state: row.state,
    askedBy: nameOf(known, row.askedBy),
    askedAt: (row.askedAt ?? new Date()).toISOString(),
    comment: row.comment,
    lines: row.asked.flatMap(({ line, discount, margin }) => {
      const at = position.get(line);
      const given = row.counter.find((each) => each.line === line);
      return at === undefined
        ? []
        : [
            {
              line,
              position: at,
              discount,
              ...(margin === undefined ? {} : { margin }),
              ...(given && 'rate' in given ? { offer: given.rate } : {}),
              ...(given && 'no' in given ? { refused: true as const } : {}),
            },
          ];
    }),
    ...(row.answeredBy
      ? { answeredBy: nameOf(known, row.answeredBy), answeredAt: row.answeredAt?.toISOString() ?? '' }
      : {}),
    ...(row.answeredFor ? { answeredFor: nameOf(known, row.answeredFor) } : {}),
  }));
  return {
    limits,
    history,
    judged: judged.map((each) =>
      remembered(shownOnce, each, () => {
        const { line, by, reach, figure, signers } = each;
        return { line, by, reach, figure, signers };
      }),
    ),
    needs: needs.map(({ role, held, judged: own, policies: hit }) => ({
      role,
      held,
      lines: [...new Set(own.map(({ line }) => position.get(line) ?? 0))],
      policies: hit.map(({ id }) => policies.get(id) ?? {}),
    })),
    mayAnswer: rows
      .filter((row) => row.state === 'asked' && answersAs(known, actor, row, ownerId))
      .map((row) => row.id),
  };
}

/** What waits for an actor's answer, in their own name or in the place of somebody, the oldest first. */
export async function askedOf(actor: Actor): Promise<AskedSignOff[]> {
  const known = await reference();
  const others = inPlaceOf(known, actor);
  if (!may(actor, 'sign') && others.length === 0) return [];
  const rows = await connected().sequelize.query<
    Omit<AskedSignOff, 'at' | 'by' | 'for'> & { at: Date } & Pick<SignOffRow, 'askedBy' | 'role'> & {
        ownerId: string;
      }
  >(
    `select q.id as "quoteId", q.number, q.title, q.owner_id as "ownerId", r.customer ->> 'name' as customer, s.role, s.asked_by as "askedBy", s.asked_at as at, s.reason, jsonb_array_length(s.figures) as lines
     from sign_offs s join quote_revisions r on r.id = s.revision_id join quotes q on q.id = r.quote_id
     where s.state = 'asked' and r.state = 'draft' and s.asked_by <> $1
       and ('director' = any($2::text[]) or s.role = any($2::text[])) order by s.asked_at limit 100`,
    {
      bind: [actor.id, [actor.role, ...others.map(({ role }) => role)]],
      type: QueryTypes.SELECT,
    },
  );
  return rows.flatMap(({ at, askedBy, role, ownerId, ...row }) => {
    const as = answersAs(known, actor, { askedBy, role }, ownerId);
    if (!as) return [];
    return [
      {
        ...row,
        by: nameOf(known, askedBy),
        at: at.toISOString(),
        ...(as.id === actor.id ? {} : { for: nameOf(known, as.id) }),
      },
    ];
  });
}
