/** What is said from a day on: what holds, what is still to come, and what is over. */
export { inForce, standOf, type Dated, type Stand } from './in-force';
