import type { APIRoute } from 'astro';
import { sessionCookie } from '../server/cookies';
import { signOut } from '../services/access/sessions';

/** The button in the bar is a form, so that it works before any script does. */
export const POST: APIRoute = async ({ cookies, redirect }) => {
  const token = cookies.get(sessionCookie)?.value;
  if (token) await signOut(token);
  cookies.delete(sessionCookie, { path: '/' });
  return redirect('/sign-in', 303);
};
