/**
 * What a quotation is made of. Every field is named here that goes to paper: what is not, such as costs, margins,
 * limits, steps and warnings passed, does not.
 */
import { Op } from 'sequelize';
import type { LineView, QuoteView } from '../../contract';
import { exact, type Units } from '../../core/exact';
import type { PaperBuild, PaperGiven, PaperHouse, PaperLine, PaperPart, PartKind } from '../../core/paper';
import type { LinePrice, PricedPart } from '../../core/pricing';
import { connected, type BuildRow } from '../../data';
import { translator } from '../../i18n';
import { partHow } from '../../i18n/part-how';
import type { Actor } from '../access/actor';
import { registeredFor } from '../builds/outcome';
import { versionById } from '../catalogue/models';
import { today } from '../kernel/clock';
import { askEngine, factsKey } from '../kernel/engines';
import { findQuote } from '../quotes/quote-state';
import { housePart, senderOf } from '../settings/house';
import { reference, type Reference } from '../settings/reference-data';
import { offered } from './files/offered';

/** How what is given is told. */
export interface GivenAs {
  language: string;
  units: Units;
  /** With the drawings of builds. */
  drawn: boolean;
}

/** All that a quotation of a revision is made of, as its customer may see it. */
export async function givenOf(actor: Actor, seen: QuoteView, as: GivenAs): Promise<PaperGiven> {
  const quote = offered(seen);
  const [known, base] = [await reference(), await findQuote(actor, quote.id)];
  const { customer } = quote;
  const owner =
    base && (await connected().records.users.findByPk(base.ownerId, { attributes: ['email'], raw: true }));
  const settled = quote.revisions.find(({ number }) => number === quote.revision.number)?.settledAt;
  return {
    number: quote.number,
    revision: quote.revision.number,
    title: quote.title,
    day: settled?.slice(0, 10) ?? today(),
    validUntil: quote.revision.validUntil,
    delivered: quote.delivered,
    owner: { name: quote.owner, email: owner?.email ?? '' },
    customer: {
      number: customer.number,
      name: customer.name,
      class: customer.class,
      contact: customer.contactName,
      contactEmail: customer.contactEmail,
      paymentDays: customer.paymentDays ?? 30,
      addresses: customer.addresses.map(({ kind, street, postcode, town, country }) => ({
        kind,
        street,
        postcode,
        town,
        country,
      })),
    },
    house: await houseOf(base?.dealer ?? null),
    currency: quote.currency,
    decimals: quote.decimals,
    lines: await linesOf(quote, known, as),
    totals: openTotals(quote),
    tax: quote.tax ?? null,
    lease: quote.lease,
    draft:
      quote.lines.some((line) => line.problems.length > 0) ||
      (quote.signOff?.needs.some((need) => !need.held) ?? false),
  };
}

function openTotals({ totals }: QuoteView): PaperGiven['totals'] {
  const { list, net, reduction, oneTime, recurring, perMonth, firstYear } = totals;
  return { list, net, reduction, oneTime, recurring, perMonth, firstYear };
}

/** Who offers it: the works with all that its paper says, or a dealer. */
export async function houseOf(dealer: { id: string; name: string } | null): Promise<PaperHouse> {
  const company = await housePart('company');
  const { name, street, postcode, town, country } = await senderOf(dealer);
  const none = { phone: '', email: '', web: '', taxNumber: '', registered: '', bank: '', iban: '', bic: '' };
  const told = dealer ? none : company;
  const { phone, email, web, taxNumber, registered, bank, iban, bic } = told;
  return {
    name,
    street,
    postcode,
    town,
    country,
    phone,
    email,
    web,
    taxNumber,
    registered,
    bank,
    iban,
    bic, // prettier-ignore
    lines: [
      `${street}, ${postcode} ${town}, ${country}`,
      [phone, email, web.replace(/^https:\/\//, '')].filter(Boolean).join(' · '),
    ].filter(Boolean),
    foot: [registered, taxNumber, [bank, iban, bic].filter(Boolean).join(' ')].filter(Boolean),
    mark: dealer ? null : company.mark,
  };
}

async function linesOf(quote: QuoteView, known: Reference, as: GivenAs): Promise<PaperLine[]> {
  const ids = quote.lines.flatMap(({ buildId }) => buildId ?? []);
  const rows =
    ids.length === 0
      ? []
      : await connected().records.builds.findAll({ where: { id: { [Op.in]: ids } }, raw: true });
  const [told, leads] = [await buildsOnPaper(rows, as), await leadsOf(rows)];
  const at = new Map(rows.map(({ id }, index) => [id, index]));
  return quote.lines.map((line): PaperLine => {
    const index = line.buildId === undefined ? undefined : at.get(line.buildId);
    const row = index === undefined ? undefined : rows[index];
    return {
      ...lineOf(line, quote, known, as.language),
      leadDays: index === undefined ? (known.items.get(line.sku)?.leadDays ?? null) : (leads[index] ?? null),
      mass: row?.outcome.mass ?? massOf(known, line.sku),
      build: index === undefined ? null : (told[index] ?? null),
    };
  });
}

const massOf = ({ items }: Reference, sku: string): string | null => {
  const mass = items.get(sku)?.mass;
  return mass === undefined || mass === null ? null : exact(mass).toString();
};

function lineOf(
  line: LineView,
  quote: QuoteView,
  known: Reference,
  language: string,
): Omit<PaperLine, 'leadDays' | 'mass' | 'build'> {
  const { parts, apart } = partsOf(line, known);
  return {
    id: line.origin,
    position: line.position,
    name: line.name,
    sku: line.sku,
    family: line.family,
    kind: known.items.get(line.sku)?.kind ?? 'part',
    partNumber: line.partNumber,
    quantity: line.quantity,
    unit: line.unit,
    optional: line.optional,
    alternative: line.alternative,
    alternativeSet: line.alternativeSet,
    insteadOf: line.insteadOf ?? null,
    group: line.group,
    price: openPrice(line.price),
    how: partHow(
      {
        id: '',
        kind: 'part',
        name: {},
        amount: line.price.unitList,
        ...(line.price.tiers ? { tiers: line.price.tiers } : {}),
        ...(line.price.least === undefined ? {} : { least: line.price.least }),
      },
      translator(language),
      language,
      quote.decimals,
    ),
    taxRate: line.taxRate ?? null,
    covers: line.covers.map(({ name, from, to }) => ({ name, from, to })),
    special: line.special.map(({ text }) => text).filter(Boolean),
    parts,
    partsApart: apart,
    recurs: (line.build?.parts ?? []).flatMap(({ name, recurs }) =>
      recurs ? [{ name, baseMonths: recurs.baseMonths, start: recurs.start ?? null }] : [],
    ),
    sold: soldWith(line, known),
  };
}

/** The line's own item and those that its build is priced with. */
function soldWith({ sku, build }: LineView, { items }: Reference): PaperLine['sold'] {
  const all = new Set([sku, ...(build?.parts ?? []).flatMap(({ item }) => item ?? [])]);
  return [...all].flatMap((each) => {
    const item = items.get(each);
    return item ? [{ sku: each, family: item.family, kind: item.kind }] : [];
  });
}

/** A price as it may be told: what is taken off, but neither its steps nor what it costs. */
function openPrice({
  per,
  unitList,
  unitNet,
  list,
  before,
  share,
  net,
  once,
  recurring,
  subscriptions,
}: LinePrice): LinePrice {
  return {
    steps: [],
    ...(per ? { per } : {}),
    unitList,
    unitNet,
    list,
    ...(before === undefined ? {} : { before }),
    ...(share === undefined ? {} : { share }),
    net,
    ...(once ? { once: { list: once.list, net: once.net } } : {}),
    ...(recurring ? { recurring } : {}),
    ...(subscriptions ? { subscriptions: subscriptions.map(openPrice) } : {}),
  };
}

/** Parts of a build that are counted with each piece; what they cost only where together they make its list price. */
function partsOf({ build, price }: LineView, known: Reference): { parts: PaperPart[]; apart: boolean } {
  const counted = (build?.parts ?? []).filter(({ counts, recurs }) => counts === undefined && !recurs);
  const apart = !exact(price.unitList).eq(counted.reduce((sum, { amount }) => sum.plus(amount), exact(0)));
  return {
    apart,
    parts: counted.map((part): PaperPart => ({
      name: part.name,
      ...(part.quantity === undefined ? {} : { quantity: part.quantity }),
      amount: apart ? '0' : part.amount,
      kind: kindOfPart(part, known),
    })),
  };
}

function kindOfPart({ item, amount, place, kind }: PricedPart, { items }: Reference): PartKind {
  if (exact(amount).isZero()) return 'unpriced';
  if (place !== undefined && kind === 'part') return 'inner';
  switch (item === undefined ? 'model' : items.get(item)?.kind) {
    case 'software':
    case 'service':
      return 'service';
    case 'model':
      return 'machine';
    default:
      return 'accessory';
  }
}

/** Builds in words, with their drawings where they are wanted. */
export async function buildsOnPaper(
  rows: readonly BuildRow[],
  { units, drawn }: Pick<GivenAs, 'units' | 'drawn'>,
): Promise<PaperBuild[]> {
  if (rows.length === 0) return [];
  return askEngine(
    'onPaper',
    await Promise.all(
      rows.map(async ({ modelVersionId: version, outcome, decisions, asked }) => {
        const { registered } = await registeredFor(await versionById(version), outcome);
        return {
          version,
          values: outcome.values,
          units,
          drawn,
          decided: [...asked, ...decisions].map(({ on }) => on.replace(/\..*$/, '')),
          ...(registered ? { registered } : {}),
        };
      }),
    ),
  );
}

async function leadsOf(rows: readonly BuildRow[]): Promise<(number | null)[]> {
  if (rows.length === 0) return [];
  return askEngine('leads', {
    facts: await factsKey(),
    builds: rows.map(({ modelVersionId: version, outcome, special }) => ({
      version,
      values: outcome.values,
      special,
    })),
  });
}
