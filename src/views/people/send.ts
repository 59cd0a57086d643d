import type { PeopleView, PeopleWithLink } from '../../contract';
import type { Answer } from '../api';

/** All people, and a link where one was made. */
export type Told = PeopleView | PeopleWithLink;
/** Sends a change of people, and shows what came of it. */
export type Send = (sent: Promise<Answer<Told>>) => Promise<Answer<Told>>;
