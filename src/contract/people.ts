/** People of the house and of its dealers: made, changed, put aside, let in by a link, stood in for. */
import { array, string } from 'yup';
import { endpoint, json } from './endpoint';
import { roles, type Role } from './permissions';
import { day, emailText, exactly, flag, id, oneOf, said, version, type Sent } from './schema';

const person = {
  name: said(120, 'people.noName'),
  /** What they sign in with; kept in small letters. */
  email: emailText.lowercase().strict(false).required('newCustomer.noEmail'),
  role: oneOf(roles, 'people.noRole').required('people.noRole'),
  language: oneOf(['en', 'de'], 'input.badLanguage').required('input.badLanguage'),
  /** The dealer for whom they sign in; of people of the house none. */
  dealer: string().uuid('input.badId').nullable().default(null),
};

/** Somebody new. */
export const newPersonInput = exactly(person);
/** What passes `newPersonInput`. */
export type NewPersonInput = Sent<typeof newPersonInput>;

/** Somebody as they are to be from now on. */
export const changePersonInput = exactly({ version, ...person });
/** What passes `changePersonInput`. */
export type ChangePersonInput = Sent<typeof changePersonInput>;

/** Whether somebody is put aside: they no longer sign in, and all they did stays. */
export const asideInput = exactly({ version, aside: flag.required('input.required') });
/** What passes `asideInput`. */
export type AsideInput = Sent<typeof asideInput>;

/** Deputies of somebody at most. */
export const mostDeputies = 50;
/** Who stands in for somebody, from day to day, both counted: all of them. */
export const deputiesInput = exactly({
  version,
  deputies: array()
    .strict()
    .of(
      exactly({
        deputy: id,
        from: day,
        to: day.test(
          'order',
          'house.endsBefore',
          (to, { parent }) => to >= (parent as { from: string }).from,
        ),
      }),
    )
    .max(mostDeputies, 'input.tooMany')
    .required('input.required'),
});
/** What passes `deputiesInput`. */
export type DeputiesInput = Sent<typeof deputiesInput>;

const token = string().strict().max(100, 'password.unknownLink').required('password.unknownLink');
/** The token of a link. */
export const linkInput = exactly({ token });
/** What passes `linkInput`. */
export type LinkInput = Sent<typeof linkInput>;

/** Characters of a password at least. */
export const shortestPassword = 12;
/** A password that somebody sets by their link. */
export const passwordInput = exactly({
  token,
  password: string()
    .strict()
    .min(shortestPassword, 'password.short')
    .max(200, 'input.tooLong')
    .required('password.short'),
});
/** What passes `passwordInput`. */
export type PasswordInput = Sent<typeof passwordInput>;

/** Somebody as who runs the house sees them; moments in ISO form, days as in "2026-11-28". */
export interface PersonView {
  id: string;
  version: number;
  name: string;
  email: string;
  role: Role;
  language: 'en' | 'de';
  dealer: { id: string; name: string } | null;
  /** Since when they no longer sign in. */
  asideAt: string | null;
  /** They have set a password. */
  hasPassword: boolean;
  /** Until when a link waits for them; null where none does. */
  linkUntil: string | null;
  /** When they last signed in, as far as it is known. */
  seenAt: string | null;
  /** Quotes of theirs that are still drafts. */
  drafts: number;
  /** Who stands in for them, past and to come. */
  deputies: { deputy: string; name: string; from: string; to: string }[];
}

/** All people, and what there is to choose from. */
export interface PeopleView {
  people: PersonView[];
  dealers: { id: string; name: string }[];
}

/** People, and the link that was made for one of them; it is told this once. */
export interface PeopleWithLink extends PeopleView {
  /** Whose link it is. */
  person: string;
  /** Path and token. */
  link: string;
  /** ISO. */
  until: string;
}

/** Whose password a link sets. */
export interface LinkView {
  name: string;
  email: string;
  language: 'en' | 'de';
}

/** Endpoints of people. */
export const people = {
  'GET /people': endpoint({
    says: 'All people, who stands in for them, and the dealers for whom some sign in.',
    who: 'administer',
    answers: json<PeopleView>('PeopleView'),
  }),
  'POST /people': endpoint({
    says: 'Makes somebody, with a link by which they set their password once.',
    who: 'administer',
    input: newPersonInput,
    toldOnce: true,
    answers: json<PeopleWithLink>('PeopleWithLink'),
  }),
  'PUT /people/{id}': endpoint({
    says: 'Changes name, e-mail, role, language and dealer of somebody.',
    who: 'administer',
    input: changePersonInput,
    answers: json<PeopleView>('PeopleView'),
  }),
  'PUT /people/{id}/aside': endpoint({
    says: 'Puts somebody aside, who is signed out at once and no longer signs in, or takes them back.',
    who: 'administer',
    input: asideInput,
    answers: json<PeopleView>('PeopleView'),
  }),
  'PUT /people/{id}/deputies': endpoint({
    says: 'Says who answers sign-offs in the place of somebody, from day to day.',
    who: 'administer',
    input: deputiesInput,
    answers: json<PeopleView>('PeopleView'),
  }),
  'POST /people/{id}/link': endpoint({
    says: 'Makes a link by which somebody sets their password once; one made before no longer works.',
    who: 'administer',
    toldOnce: true,
    answers: json<PeopleWithLink>('PeopleWithLink'),
  }),
  'POST /password/link': endpoint({
    says: 'Whose password a link sets.',
    who: 'anyone',
    input: linkInput,
    most: 4 * 1024,
    answers: json<LinkView>('LinkView'),
  }),
  'POST /password': endpoint({
    says: 'Sets a password by a link, which works once; whoever was signed in as that person is signed out.',
    who: 'anyone',
    input: passwordInput,
    most: 4 * 1024,
    answers: json<null>('null'),
  }),
};
