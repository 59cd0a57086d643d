/** Signing in over HTTP: the same for the page's script and for its form. */
import type { APIContext } from 'astro';
import type { SignInInput } from '../../contract';
import { deviceCookie, sessionCookie } from '../cookies';
import type { Actor } from '../../services/access/actor';
import { done, type Result } from '../../services/kernel/failure';
import { signIn } from '../../services/access/sessions';

const halfYear = 180 * 24 * 60 * 60;

/** Signs in and gives the browser its cookies. */
export async function signInFrom(
  { cookies, locals }: Pick<APIContext, 'cookies' | 'locals'>,
  { email, password }: SignInInput,
): Promise<Result<Actor>> {
  const { address, secure } = locals.client;
  const result = await signIn({ email, password, address, device: cookies.get(deviceCookie)?.value });
  if (!result.ok) return result;
  const { token, device, actor } = result.value;
  const usual = { httpOnly: true, sameSite: 'lax' as const, secure, path: '/' };
  cookies.set(sessionCookie, token, usual);
  cookies.set(deviceCookie, device, { ...usual, maxAge: halfYear });
  return done(actor);
}
