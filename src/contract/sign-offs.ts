/** Sign-offs: asked, answered, countered, and where a quote stands with its limits. */
import { array, string } from 'yup';
import { endpoint } from './endpoint';
import { changedQuote } from './quote-answer';
import { exactly, flag, id, note, oneOf, said, version, versionInput, type Sent } from './schema';
import { discountPercent } from './typed';

/** Why a sign-off is asked for. */
export const askSignOffInput = exactly({ version, reason: said(500, 'signOff.noReason') });
/** What passes `askSignOffInput`. */
export type AskSignOffInput = Sent<typeof askSignOffInput>;

const offer = exactly({
  line: id,
  rate: string().test(
    'rate',
    'discount.notANumber',
    (value?: string) => value === undefined || discountPercent.isValidSync(value),
  ),
  no: flag.oneOf([true], 'signOff.badAnswer'),
}).test('one', 'signOff.badAnswer', (value) => (value.rate === undefined) !== (value.no === undefined));
/** For one line: the discount in percent that would be signed, or that it is not. */
export type OfferInput = Sent<typeof offer>;

/** The answer to a sign-off; with a counter-offer, what would be signed for each line. */
export const answerSignOffInput = exactly({
  version,
  answer: oneOf(['yes', 'no', 'counter'], 'signOff.badAnswer').required('input.required'),
  comment: note,
  counter: array().of(offer).max(1_000, 'input.tooMany').default([]),
});
/** What passes `answerSignOffInput`. */
export type AnswerSignOffInput = Sent<typeof answerSignOffInput>;

/** Endpoints of sign-offs. */
export const signOffs = {
  'POST /quotes/{id}/sign-offs': endpoint({
    says: 'Asks for the sign-offs that a quote needs, with a reason.',
    who: 'quotes',
    input: askSignOffInput,
    answers: changedQuote,
  }),
  'PATCH /quotes/{id}/sign-offs/{signOff}': endpoint({
    says: 'Answers a sign-off: yes, no, or the discounts that would be signed. Who may not sign does so as a deputy.',
    who: 'costs',
    input: answerSignOffInput,
    answers: changedQuote,
  }),
  'POST /quotes/{id}/sign-offs/{signOff}/take': endpoint({
    says: 'Takes the counter-offer that a sign-off was answered with.',
    who: 'quotes',
    input: versionInput,
    answers: changedQuote,
  }),
};
