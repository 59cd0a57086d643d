import type { APIRoute } from 'astro';
import { signInInput } from '../../core/quoting';
import { sessionCookie } from '../../server/cookies';
import { signOut } from '../../services/sessions';
import { answer, browserLanguage, json, refused } from './_answer';
import { readBody } from './_body';
import { signInFrom } from './_sign-in';

const mostBytes = 4 * 1024;

export const POST: APIRoute = async (context) => {
  const language = browserLanguage(context.request);
  const read = await readBody(context.request, signInInput, mostBytes);
  if (!read.ok) return refused(read.status, read.failures, language);
  const result = await signInFrom(context, read.value);
  return result.ok ? json({ name: result.value.name }) : answer(result, language);
};

export const DELETE: APIRoute = async ({ cookies }) => {
  const token = cookies.get(sessionCookie)?.value;
  if (token) await signOut(token);
  cookies.delete(sessionCookie, { path: '/' });
  return json(null);
};
