import type { NextRequest } from 'next/server';
import { currentActor, sessionOf } from '@/app/session';
import { hearChanges } from '@/flows/house/changes';
import { isSignedIn } from '@/flows/house/sign-in';

const PULSE_MS = 20_000;

/** An open line to a desk: one short line each time something of its business changes. It ends with the session under which it was opened. */
export async function GET(request: NextRequest): Promise<Response> {
  const actor = await currentActor();
  if (!actor) return new Response(null, { status: 401, headers: { 'cache-control': 'private, no-store' } });
  const since = Number(request.nextUrl.searchParams.get('since')) || Date.now();
  const text = new TextEncoder();
  const token = sessionOf(request);
  let ended = false;
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const write = (line: string) => controller.enqueue(text.encode(line));
      const writeIfOpen = async (line: string) => {
        const open = await isSignedIn(token).catch(() => true);
        if (ended) return;
        if (open) return write(line);
        end();
        controller.close();
      };
      write('retry: 2000\n\n');
      const stop = await hearChanges(actor, since, () => void writeIfOpen('data: changed\n\n'));
      const pulse = setInterval(() => void writeIfOpen(': here\n\n'), PULSE_MS);
      end = () => {
        clearInterval(pulse);
        stop();
        ended = true;
        end = () => {};
      };
      request.signal.addEventListener('abort', () => end());
      if (request.signal.aborted) end();
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'private, no-store', 'x-accel-buffering': 'no' },
  });
}
