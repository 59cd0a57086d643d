/** Who somebody is, and how they like to see things. */
import { array, string } from 'yup';
import { endpoint, json } from './endpoint';
import { ledgerColumns } from './ledger-columns';
import { exactly, flag, oneOf, type Sent } from './schema';

/** What a person signs in with. */
export const signInInput = exactly({
  email: string()
    .strict()
    .trim()
    .max(200, 'input.tooLong')
    .email('input.badEmail')
    .required('signIn.emailMissing'),
  password: string().strict().max(200, 'input.tooLong').required('signIn.passwordMissing'),
});
/** What passes `signInInput`. */
export type SignInInput = Sent<typeof signInInput>;

const ledgerColumn = exactly({
  id: oneOf(ledgerColumns, 'input.badKind').required('input.required'),
  pinned: flag.default(false),
});
/** What a person may change of how they see things; null for the columns means the usual ones. */
export const personInput = exactly({
  language: oneOf(['en', 'de'], 'input.badLanguage'),
  foldBarred: flag,
  units: oneOf(['metric', 'imperial'], 'input.badUnits'),
  ledger: array()
    .of(ledgerColumn)
    .min(1, 'input.required')
    .max(ledgerColumns.length, 'input.tooMany')
    .nullable()
    .optional(),
});
/** What passes `personInput`. */
export type PersonInput = Sent<typeof personInput>;

/** Who has signed in. */
export interface SignedIn {
  name: string;
}

/** Endpoints of who somebody is. */
export const access = {
  'POST /session': endpoint({
    says: 'Signs in; the answer sets the cookie that later requests carry.',
    who: 'anyone',
    input: signInInput,
    most: 4 * 1024,
    answers: json<SignedIn>('SignedIn'),
  }),
  'DELETE /session': endpoint({ says: 'Signs out.', who: 'anyone', answers: json<null>('null') }),
  'PATCH /me': endpoint({
    says: 'Changes how the person likes to see things: language, units, columns, what is folded away.',
    who: 'person',
    input: personInput,
    answers: json<null>('null'),
  }),
};
