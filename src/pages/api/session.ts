import type { APIRoute } from 'astro';
import { signInInput } from '../../core/quoting';
import { sessionCookie } from '../../middleware';
import { signIn, signOut } from '../../services/sessions';
import { answer, browserLanguage, json, readBody, refused } from './_answer';

export const POST: APIRoute = async ({ request, cookies, url }) => {
  const language = browserLanguage(request);
  const read = await readBody(request, signInInput);
  if (!read.ok) return refused(read.status, read.failures, language);
  const result = await signIn(read.value.email, read.value.password);
  if (!result.ok) return answer(result, language);
  cookies.set(sessionCookie, result.value.token, { httpOnly: true, sameSite: 'lax', secure: url.protocol === 'https:', path: '/' });
  return json({ name: result.value.actor.name });
};

export const DELETE: APIRoute = async ({ cookies }) => {
  const token = cookies.get(sessionCookie)?.value;
  if (token) await signOut(token);
  cookies.delete(sessionCookie, { path: '/' });
  return json(null);
};
