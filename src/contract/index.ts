/**
 * What travels between pages and server, as the views and services use it. The endpoints themselves stand in
 * `all.ts`, which only the dispatcher and the tests read: a page knows them by their types alone.
 */
export type { Contract } from './all';
export type { AnswerOf, Endpoint, Endpoints, FileAnswer, InputOf, PlaceOf, QueryOf } from './endpoint';
export * from './access';
export * from './audit';
export * from './bench-view';
export * from './builds';
export * from './catalogue';
export * from './customers';
export * from './deal';
export * from './desk';
export * from './files';
export * from './house';
export * from './items';
export * from './jobs';
export * from './ledger-columns';
export * from './lines';
export * from './orders';
export * from './outbox';
export * from './paper';
export * from './people';
export * from './permissions';
export * from './prices';
export * from './quote-changes';
export * from './quote-previews';
export * from './quote-rows';
export * from './quote-view';
export * from './quotes';
export * from './revision-query';
export * from './saved';
export * from './schema';
export * from './shares';
export * from './colleagues';
export * from './schedules';
export * from './shelf';
export * from './sign-off-view';
export * from './sign-offs';
export * from './system';
export * from './terms';
export * from './typed';
export * from './workshop';
