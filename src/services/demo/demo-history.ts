/**
 * Three years of the demo's house before today: prices that rose each new year, and quotes that were sent, won, lost or
 * forgotten. It is drawn by lot from a fixed seed, so that it is the same each time, and made through the services
 * that people use.
 */
import { connected, type PriceEntryRow } from '../../data';
import { exact } from '../../core/exact';
import { lostReasons } from '../../core/quotes';
import { inDays } from '../kernel/clock';
import type { CustomerFile, LineFile, QuoteFile } from './demo-files';

/** What of it is kept in a file: which customers buy what, how their sites are called, and how prices rose. */
export interface HistoryFile {
  /** By how much prices rose on a day; the newest first. */
  rises: { on: string; rate: string }[];
  /** Quotes of a month, at least and at most. */
  month: { least: number; most: number };
  /** How often a customer asks, against the others, and for what. */
  asks: Record<string, { often: number; for: string[] }>;
  /** What is asked for: lines of which one of each is taken, and how it is called. */
  kinds: Record<string, { title: Record<string, string>; lines: LineFile[][] }>;
  /** Places, by language. */
  places: Record<string, string[]>;
  /** Why quotes were lost, as colleagues wrote it, by language. */
  notes: Record<string, Record<string, string[]>>;
}

/** A row of numbers drawn by lot that is the same for the same seed. */
export function lots(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Who quotes: a dealer for own customers, and else whoever speaks the language. */
const sellers = {
  en: 'mara@harrowmoor.example',
  de: 'joss@harrowmoor.example',
  dealer: 'rhona@dunmere.example',
};

/** Of all quotes that end, those that are won, and with them those that are lost; the rest is never answered. */
const [won, lost] = [0.47, 0.8];

/** Days after which a quote without an answer is closed. */
const longSilence = 100;

/** Months that are told of, before this one. */
const months = 36;

/** The quotes of three years, the oldest first, as they are made by `loadQuote`. */
export function historyOf(file: HistoryFile, customers: readonly CustomerFile[]): QuoteFile[] {
  const lot = lots(20_231);
  const one = <T>(of: readonly T[]): T => of[Math.floor(lot() * of.length)] as T;
  const between = (least: number, most: number): number => least + Math.floor(lot() * (most - least + 1));
  const asking = customers.flatMap(({ number }) =>
    Array.from({ length: file.asks[number]?.often ?? 0 }, () => number),
  );
  const quotes: QuoteFile[] = [];
  for (let month = months; month >= 1; month -= 1)
    for (let count = between(file.month.least, file.month.most); count > 0; count -= 1) {
      const who = one(asking);
      const customer = customers.find(({ number }) => number === who) as CustomerFile;
      const { language, dealer } = customer;
      const kind = file.kinds[one(file.asks[customer.number]?.for ?? [])] as HistoryFile['kinds'][string];
      // What is of the last weeks is told by the quotes of the demo.
      const daysAgo = month * 30 + 20 + between(0, 27);
      const sentDaysAgo = daysAgo - between(1, 6);
      const settledDaysAgo = Math.max(8, sentDaysAgo - between(6, 55));
      // What a dealer offers is bought from the dealer.
      const fate = dealer === null ? lot() : won + lot() * (1 - won);
      // What nobody answered for long was closed one day.
      const silent = fate >= lost && sentDaysAgo > longSilence;
      const drawn = one(lostReasons);
      const reason = silent ? 'silence' : drawn;
      const lostDaysAgo = silent ? sentDaysAgo - longSilence + 10 : settledDaysAgo;
      quotes.push({
        by: dealer !== null ? sellers.dealer : language === 'de' ? sellers.de : sellers.en,
        customer: customer.number,
        title: `${one(file.places[language] ?? [])}, ${kind.title[language] ?? ''}`,
        // A dealer gives nothing away on the house's prices.
        lines: kind.lines.map((choice) => {
          const { hand, ...line } = one(choice);
          return hand && dealer === null ? { ...line, hand } : line;
        }),
        daysAgo,
        sentDaysAgo,
        send: true,
        accept: fate < won,
        ...(fate < won ? { settledDaysAgo } : {}),
        ...(fate >= won && (fate < lost || silent)
          ? { settledDaysAgo: lostDaysAgo, lost: { reason, note: one(file.notes[reason]?.[language] ?? ['']) } }
          : {}),
      });
    }
  return quotes.sort((one, other) => (other.daysAgo ?? 0) - (one.daysAgo ?? 0));
}

/** What a price was before it rose: to the next half where it is ten or more, and never above what it became. */
export function before(price: string, rate: string): string {
  const was = exact(price).dividedBy(exact(rate).plus(1));
  return (exact(price).gte(10) ? was.times(2).floor().dividedBy(2) : was.toDecimalPlaces(2)).toFixed(2);
}

/** Writes what prices were before each rise, back to a day before all that is told of. */
export async function loadEarlierPrices({ rises }: HistoryFile): Promise<void> {
  const { priceEntries, priceLists } = connected().records;
  const since = inDays(-(months + 14) * 31);
  const first = await priceEntries.findAll({ where: { inside: '', changeId: null }, raw: true });
  const oldest = new Map<string, PriceEntryRow>();
  for (const row of first) {
    const key = `${row.priceList} ${row.sku}`;
    const known = oldest.get(key);
    if (!known || row.validFrom < known.validFrom) oldest.set(key, row);
  }
  const earlier = [...oldest.values()].flatMap((row) => {
    const days = rises.map(({ on }) => on).filter((on) => on > since && on < row.validFrom);
    let entry = row.entry;
    return [...days, since].map((validFrom, index) => {
      const rate = rises[index]?.rate ?? '0';
      if (entry?.method === 'unit') entry = { ...entry, price: before(entry.price, rate) };
      return { ...row, place: undefined, entry, validFrom };
    });
  });
  await priceEntries.bulkCreate(earlier);
  await priceLists.update({ validFrom: since }, { where: {} });
}
