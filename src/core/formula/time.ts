/**
 * Days and durations, as the standard has them: a date without time, a duration in days and seconds, a
 * duration in years and months.
 */

const millisecondsOfDay = 86_400_000;
/** Days from the first of January 1970 that the calendar functions of the language still write. */
const furthest = 100_000_000;

/** A date. */
export class Day {
  private constructor(
    /** Days since the first of January 1970. */
    readonly number: number,
  ) {}

  static at(number: number): Day | null {
    return Number.isInteger(number) && Math.abs(number) <= furthest ? new Day(number) : null;
  }

  /** A day that exists in the calendar; null for the 30th of February. */
  static of(year: number, month: number, day: number): Day | null {
    if (
      !Number.isInteger(year) ||
      !Number.isInteger(month) ||
      !Number.isInteger(day) ||
      year < 1 ||
      year > 9999
    )
      return null;
    const date = new Date(0);
    date.setUTCFullYear(year, month - 1, day);
    const found = Day.at(Math.round(date.getTime() / millisecondsOfDay));
    return found?.year === year && found.month === month && found.day === day ? found : null;
  }

  static read(text: string): Day | null {
    const [, year, month, day] = /^(\d{4})-(\d\d)-(\d\d)$/.exec(text) ?? [];
    return day === undefined ? null : Day.of(Number(year), Number(month), Number(day));
  }

  private get date(): Date {
    return new Date(this.number * millisecondsOfDay);
  }
  get year(): number {
    return this.date.getUTCFullYear();
  }
  get month(): number {
    return this.date.getUTCMonth() + 1;
  }
  get day(): number {
    return this.date.getUTCDate();
  }
  /** 1 is Monday. */
  get weekday(): number {
    return this.date.getUTCDay() || 7;
  }

  plus({ unit, amount }: Span): Day | null {
    if (unit === 'seconds') return Day.at(this.number + Math.floor(amount / 86_400));
    const months = this.year * 12 + this.month - 1 + amount;
    const [year, month] = [Math.floor(months / 12), ((months % 12) + 12) % 12];
    // The 31st becomes the last day of a shorter month.
    for (let day = this.day; day >= 28; day--) {
      const found = Day.of(year, month + 1, day);
      if (found) return found;
    }
    return Day.of(year, month + 1, this.day);
  }

  toString(): string {
    return `${String(this.year).padStart(4, '0')}-${String(this.month).padStart(2, '0')}-${String(this.day).padStart(2, '0')}`;
  }
}

/** A duration: of days, hours, minutes and seconds, or of years and months. The two cannot be compared. */
export class Span {
  constructor(
    readonly unit: 'seconds' | 'months',
    readonly amount: number,
  ) {}

  static read(text: string): Span | null {
    const months = /^(-?)P(?=\d)(?:(\d+)Y)?(?:(\d+)M)?$/.exec(text);
    if (months) return Span.make('months', months[1], 12 * Number(months[2] ?? 0) + Number(months[3] ?? 0));
    const time = /^(-?)P(?=\d|T\d)(?:(\d+)D)?(?:T(?=\d)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/.exec(text);
    if (!time) return null;
    const [, sign, days = 0, hours = 0, minutes = 0, seconds = 0] = time;
    return Span.make(
      'seconds',
      sign,
      ((Number(days) * 24 + Number(hours)) * 60 + Number(minutes)) * 60 + Number(seconds),
    );
  }

  private static make(unit: Span['unit'], sign: string | undefined, amount: number): Span | null {
    return Number.isSafeInteger(amount)
      ? new Span(unit, amount === 0 ? 0 : sign === '-' ? -amount : amount)
      : null;
  }

  plus(other: Span): Span | null {
    return this.unit === other.unit ? new Span(this.unit, this.amount + other.amount) : null;
  }

  /** As many times; what is left of a second or a month falls away. */
  times(factor: number): Span | null {
    const amount = Math.trunc(this.amount * factor);
    return Number.isSafeInteger(amount) ? new Span(this.unit, amount === 0 ? 0 : amount) : null;
  }

  toString(): string {
    const size = Math.abs(this.amount);
    const sign = this.amount < 0 ? '-' : '';
    const part = (value: number, letter: string): string => (value > 0 ? `${String(value)}${letter}` : '');
    if (this.unit === 'months')
      return size === 0 ? 'P0M' : `${sign}P${part(Math.floor(size / 12), 'Y')}${part(size % 12, 'M')}`;
    if (size === 0) return 'PT0S';
    const clock =
      part(Math.floor(size / 3600) % 24, 'H') + part(Math.floor(size / 60) % 60, 'M') + part(size % 60, 'S');
    return `${sign}P${part(Math.floor(size / 86_400), 'D')}${clock ? `T${clock}` : ''}`;
  }
}
