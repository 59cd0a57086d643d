/**
 * What somebody is told while they look (server-sent events): that something of theirs is otherwise by now. What it is
 * they ask for by the endpoints, which decide what they may see.
 */
import type { APIRoute } from 'astro';
import type { Actor } from '../services/access/actor';
import { hear, mayHear } from '../services/kernel/live';

/** Proxies and browsers end a line on which nothing is said for long. */
const breath = 25_000;
/** A line is begun anew after so long, so that who signed out since is not told for ever. */
const longest = 30 * 60_000;

export const GET: APIRoute = ({ locals, request }) => {
  const actor = locals.actor as Actor;
  if (!mayHear(actor.id)) return new Response(null, { status: 429, headers: { 'retry-after': '30' } });
  const letters = new TextEncoder();
  let close = (): void => undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string): void => {
        try {
          controller.enqueue(letters.encode(text));
        } catch {
          close();
        }
      };
      const unhear = hear(actor.id, (word) => {
        if (word === 'end') close();
        else say(`event: word\ndata: ${JSON.stringify(word)}\n\n`);
      });
      const breathing = setInterval(() => say(': \n\n'), breath);
      const ending = setTimeout(() => close(), longest);
      close = () => {
        close = () => undefined;
        unhear();
        clearInterval(breathing);
        clearTimeout(ending);
        try {
          controller.close();
        } catch {
          // It is closed where whoever listened has gone.
        }
      };
      request.signal.addEventListener('abort', () => close());
      // How soon a lost line is tried again, in milliseconds.
      say('retry: 1500\n\n');
    },
    cancel() {
      close();
    },
  });
  return new Response(body, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
};
