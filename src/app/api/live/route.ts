import type { NextRequest } from 'next/server';
import { currentActor } from '@/app/session';
import { hearChanges } from '@/flows/house/changes';

const PULSE_MS = 20_000;

/** An open line to a desk: one short line each time something of its business changes. */
export async function GET(request: NextRequest): Promise<Response> {
  const actor = await currentActor();
  if (!actor) return new Response(null, { status: 401 });
  const since = Number(request.nextUrl.searchParams.get('since')) || Date.now();
  const text = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const write = (line: string) => controller.enqueue(text.encode(line));
      write('retry: 2000\n\n');
      const stop = await hearChanges(actor, since, () => write('data: changed\n\n'));
      const pulse = setInterval(() => write(': here\n\n'), PULSE_MS);
      end = () => {
        clearInterval(pulse);
        stop();
        end = () => {};
      };
      request.signal.addEventListener('abort', () => end());
      if (request.signal.aborted) end();
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
