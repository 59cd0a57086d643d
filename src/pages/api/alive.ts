import type { APIRoute } from 'astro';
import { json } from './_answer';

/** Answers while the server runs at all, whether or not it can serve. */
export const GET: APIRoute = () => json({ alive: true });
