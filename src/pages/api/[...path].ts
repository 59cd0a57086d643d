import type { APIRoute } from 'astro';
import { dispatch } from '../../server/api/dispatch';

/** Every endpoint, as the contract declares it. */
export const ALL: APIRoute = dispatch;
