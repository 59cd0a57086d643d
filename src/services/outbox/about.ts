/** What a mail or a share is about: a quote in its newest revision, or a build. */
import { QueryTypes } from 'sequelize';
import { connected, type BuildRow, type RevisionRow } from '../../data';
import type { Actor } from '../access/actor';
import { findBuild } from '../builds/find-build';
import { done, fail, type Result } from '../kernel/failure';
import { findQuote, type QuoteBase } from '../quotes/quote-state';

/** Somebody at a customer. */
export interface Contact {
  name: string;
  address: string;
  task: string;
}

/** A quote or a build, with whom it is for. */
export interface Subject {
  quote: QuoteBase | null;
  revision: RevisionRow | null;
  build: BuildRow | null;
  customerId: string | null;
  customer: string;
  language: string;
  contacts: Contact[];
}

/** Those at a customer who can be written to, the usual one of this quote first. */
async function contactsOf(customerId: string, first: Omit<Contact, 'task'> | null): Promise<Contact[]> {
  const rows = await connected().records.contacts.findAll({
    where: { customerId },
    order: [['position', 'ASC']],
    raw: true,
  });
  const known = rows
    .map(({ name, email, task }) => ({ name, address: email, task }))
    .filter(({ address }) => address !== '');
  if (!first || first.address === '') return known;
  const usual = known.find(({ address }) => address.toLowerCase() === first.address.toLowerCase());
  return [usual ?? { ...first, task: '' }, ...known.filter((each) => each !== usual)];
}

const ofQuote = async (
  quote: QuoteBase,
  revision: RevisionRow,
  build: BuildRow | null,
): Promise<Subject> => ({
  quote,
  revision,
  build,
  customerId: quote.customerId,
  customer: revision.customer.name,
  language: revision.customer.language,
  contacts: await contactsOf(quote.customerId, {
    name: revision.customer.contactName,
    address: revision.customer.contactEmail,
  }),
});

/** A quote that the actor may see, in its newest revision. */
export async function aboutQuote(
  actor: Actor,
  id: string,
): Promise<Result<Subject & { quote: QuoteBase; revision: RevisionRow }>> {
  const quote = await findQuote(actor, id);
  const revision =
    quote &&
    (await connected().records.revisions.findOne({
      where: { quoteId: quote.id },
      order: [['number', 'DESC']],
      raw: true,
    }));
  if (!quote || !revision) return fail('missing', { code: 'quote.missing' });
  return done({ ...(await ofQuote(quote, revision, null)), quote, revision });
}

/** A build that the actor may see: on a quote, or their own for a customer or for nobody yet. */
export async function aboutBuild(actor: Actor, id: string): Promise<Result<Subject & { build: BuildRow }>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { home } = found.value;
  const build = found.value.build.get({ plain: true });
  if (home.of === 'quote') return done({ ...(await ofQuote(home.quote, home.revision, build)), build });
  const customerId = home.pricedFor.customer?.id ?? null;
  const [row] =
    customerId === null
      ? []
      : await connected().sequelize.query<{ name: string; language: string }>(
          'select name, language from customers where id = $1',
          { bind: [customerId], type: QueryTypes.SELECT },
        );
  return done({
    quote: null,
    revision: null,
    build,
    customerId,
    customer: row?.name ?? '',
    language: row?.language ?? actor.language,
    contacts: customerId === null ? [] : await contactsOf(customerId, null),
  });
}
