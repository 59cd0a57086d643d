/** What is wrong with a number that somebody decides on, in words, and what could be taken instead. */
import { exact, shownUnit, shownValue } from '../../../core/exact';
import type { AllowedRange, Decision } from '../../../core/engine';
import type { NumberParameter } from '../../../core/model';
import { number, type Translate } from '../../../i18n';
import { nearestAllowed, readTyped } from '../session/typed';
import type { Words } from '../words';

/** What is wrong with what was typed, and what could be taken instead. */
export interface Wrong {
  sentence: string;
  offers: readonly string[];
  /** The option that the number is, where it is a standard one. */
  standard?: Decision;
}

/**
 * A number that can be taken; one that can never be; one that an option stands for; or one that something
 * forbids, which is asked why.
 */
export type Judged = { is: 'sound' } | { is: 'wrong' | 'standard' | 'forbidden'; wrong: Wrong };

/** A typed text: nothing, a number, or none. */
export type Read =
  | { is: 'empty' }
  | { is: 'number'; value: string; stepped: string | undefined }
  | { is: 'wrong'; wrong: Wrong };

/** A number parameter in the words and units of whoever types it. */
export class TypedNumber {
  constructor(
    private readonly parameter: NumberParameter,
    private readonly words: Words,
    private readonly t: Translate,
    private readonly language: string,
  ) {}

  /** The unit it is typed in. */
  get unit(): string {
    return shownUnit(this.parameter.unit, this.words.units);
  }

  /** A value of the model as it is shown, with so many digits. */
  shown(plain: string, digits = 12): string {
    return number(shownValue(plain, this.parameter.unit, this.words.units), this.language, digits);
  }

  /** The same with its unit. */
  withUnit(plain: string): string {
    return this.unit ? `${this.shown(plain)} ${this.unit}` : this.shown(plain);
  }

  /** What is decided with a value, before it is: only what can be had is offered instead. */
  judge(plain: string, allowed: readonly AllowedRange[]): Judged {
    const { least, most, step } = this.parameter;
    const offers = nearestAllowed(plain, allowed, { least, step });
    const params = {
      value: this.shown(plain),
      unit: this.unit,
      least: this.shown(least),
      most: this.shown(most),
    };
    const wrong = (code: 'decision.outOfRange' | 'decision.between'): Judged => ({
      is: 'wrong',
      wrong: { sentence: this.t(code, params) + this.instead(offers), offers },
    });
    const value = exact(plain);
    if (value.lt(least) || value.gt(most)) return wrong('decision.outOfRange');
    if (!value.minus(least).div(step).isInteger()) return wrong('decision.between');
    if (allowed.some((range) => value.gte(range.least) && value.lte(range.most))) return { is: 'sound' };
    const standard = this.standard(plain);
    if (standard) return { is: 'standard', wrong: standard };
    const ranges = allowed.map((range) =>
      range.least === range.most
        ? this.shown(range.least)
        : `${this.shown(range.least)}–${this.shown(range.most)}`,
    );
    const sentence = this.t('decision.notAllowed', { ...params, ranges: ranges.join(', ') });
    return { is: 'forbidden', wrong: { sentence: sentence + this.instead(offers), offers } };
  }

  /** Reads a typed text, in any unit that fits; `stepped` says that it was near a step, and became it. */
  read(text: string): Read {
    if (text.trim() === '') return { is: 'empty' };
    const { least, most, step, unit } = this.parameter;
    const by = { language: this.language, units: this.words.units };
    const found = readTyped(text, unit, { ...by, steps: { least, most, step } });
    if (found.is === 'number') {
      const exactly = readTyped(text, unit, by);
      const typedAs = exactly.is === 'number' ? exactly.value : found.value;
      return { is: 'number', value: found.value, stepped: this.nearStep(text, typedAs, found.value) };
    }
    if (found.is === 'none') {
      const code = unit ? 'decision.notANumberIn' : 'decision.notANumber';
      return {
        is: 'wrong',
        wrong: { sentence: this.t(code, { value: text, unit: this.unit }), offers: [] },
      };
    }
    const [other, one] = found.values;
    const sentence = this.t('decision.twoWays', {
      typed: text.trim(),
      one: this.withUnit(one),
      other: this.withUnit(other),
    });
    return { is: 'wrong', wrong: { sentence, offers: [one, other] } };
  }

  private nearStep(text: string, typedAs: string, value: string): string | undefined {
    return this.shown(typedAs) === this.shown(value)
      ? undefined
      : this.t('decision.nearStep', {
          typed: text.trim(),
          value: this.shown(typedAs, 4),
          step: this.shown(value),
          unit: this.unit,
        });
  }

  /** A number that an option stands for is taken as that option. */
  private standard(plain: string): Wrong | undefined {
    const { standard, id } = this.parameter;
    const option = standard?.values[plain];
    if (standard === undefined || option === undefined) return undefined;
    const of = id.slice(0, id.lastIndexOf('/') + 1) + standard.of;
    return {
      sentence: this.t('bench.isStandard', { value: this.withUnit(plain), what: this.words.row(of) }),
      offers: [],
      standard: { on: of, value: option },
    };
  }

  private instead(offers: readonly string[]): string {
    if (offers.length === 0) return '';
    const [below = '', above = ''] = offers.map((each) => this.withUnit(each));
    return ` ${this.t(offers.length > 1 ? 'decision.takeEither' : 'decision.takeOne', { below, above })}`;
  }
}
