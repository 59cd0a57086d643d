import type { APIRoute } from 'astro';
import { ready } from '../../services/health';
import { json } from './_answer';

/** Answers once the database does. */
export const GET: APIRoute = async () =>
  (await ready()) ? json({ ready: true }) : json({ ready: false }, 503);
