/** Whether the server runs and can serve, for those who keep it running, and what it offers to programs. */
import { endpoint, json } from './endpoint';

/** That the server runs. */
export interface Alive {
  alive: true;
}

/** Whether the server can serve. */
export interface Ready {
  ready: boolean;
}

/** Endpoints for those who keep the server running or write programs. */
export const system = {
  'GET /alive': endpoint({
    says: 'Answers while the server runs at all, whether or not it can serve.',
    who: 'anyone',
    answers: json<Alive>('Alive'),
  }),
  'GET /health': endpoint({
    says: 'Answers 200 once the database does, and 503 while it does not.',
    who: 'anyone',
    answers: json<Ready>('Ready'),
  }),
  'GET /openapi.json': endpoint({
    says: 'This document.',
    who: 'anyone',
    answers: json<object>('object'),
  }),
};
