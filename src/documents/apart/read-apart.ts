import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import type { READERS } from './readers';
import type { Asked, Told } from './thread';

type Reader = keyof typeof READERS;

/** A file could not be read within the time and the memory that one file gets, or broke its reader. */
export class NotReadable extends Error {
  override readonly name = 'NotReadable';
}

/** The file is not what it should be; the message says why, for a person. */
export class WrongFile extends Error {
  override readonly name = 'WrongFile';
}

/** What reading one file may take: milliseconds once it is begun, and megabytes. */
export const READING_LIMITS = { ms: 10_000, megabytes: 256 } as const;

/** How long the thread may take to read its own program, on a machine that has much else to do; milliseconds. */
const BEGINNING_MS = 120_000;

/** How many files may wait for the reader before the next is turned away. */
const MOST_WAITING = 20;

type Kept = { thread: Worker | null; isReady: boolean; last: Promise<unknown>; waiting: number };
const kept = globalThis as { dahliaReading?: Kept };
const state = (): Kept =>
  (kept.dahliaReading ??= { thread: null, isReady: false, last: Promise.resolve(), waiting: 0 });

/** The thread, made at the first file and again after one that had to be ended. */
function threadOf(reading: Kept): Worker {
  if (reading.thread) return reading.thread;
  // Not imported: a build would follow the path below and pack what it leads to.
  const { Worker: Thread } = process.getBuiltinModule('node:worker_threads');
  const made = new Thread(join(process.cwd(), 'src/documents/apart/begin.mjs'), {
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: READING_LIMITS.megabytes, maxYoungGenerationSizeMb: 32 },
  });
  made.unref();
  const gone = () => {
    if (reading.thread === made) reading.thread = null;
  };
  made.on('exit', gone);
  made.on('error', gone);
  reading.thread = made;
  reading.isReady = false;
  return made;
}

type Answered = Exclude<Told, { readonly ready: true }>;

function asked(reading: Kept, question: Asked, ms: number): Promise<Answered> {
  const thread = threadOf(reading);
  return new Promise((resolve, reject) => {
    const end = (settle: () => void) => {
      clearTimeout(timer);
      thread.off('message', heard);
      thread.off('error', broke);
      thread.off('exit', broke);
      settle();
    };
    const broke = () => end(() => reject(new NotReadable('broke')));
    const giveUp = () => {
      if (reading.thread === thread) reading.thread = null;
      void thread.terminate();
      end(() => reject(new NotReadable('too slow')));
    };
    // A file's time is its own: what a new thread takes until it can begin is not the file's fault.
    let timer = setTimeout(giveUp, reading.isReady ? ms : BEGINNING_MS);
    const heard = (told: Told) => {
      if (!('ready' in told)) return end(() => resolve(told));
      reading.isReady = true;
      clearTimeout(timer);
      timer = setTimeout(giveUp, ms);
    };
    thread.on('message', heard);
    thread.on('error', broke);
    thread.on('exit', broke);
    thread.postMessage(question);
  });
}

/**
 * Reads a file that somebody else wrote, in a thread of its own: whatever is in it, everybody else is served meanwhile, and it ends
 * after ten seconds or 256 MB. One file at a time.
 *
 * @throws WrongFile in words for a person, NotReadable
 */
export async function readApart<Name extends Reader>(
  reader: Name,
  args: Parameters<(typeof READERS)[Name]>,
  ms: number = READING_LIMITS.ms,
): Promise<Awaited<ReturnType<(typeof READERS)[Name]>>> {
  const reading = state();
  if (reading.waiting >= MOST_WAITING) throw new NotReadable('too many wait');
  reading.waiting++;
  const mine = reading.last.then(() => asked(reading, { reader, args }, ms));
  reading.last = mine.catch(() => undefined);
  const told = await mine.finally(() => reading.waiting--);
  if ('refused' in told) throw new WrongFile(told.refused);
  if ('broke' in told) throw new NotReadable(`${told.broke.name} ${told.broke.at}`);
  return told.read as Awaited<ReturnType<(typeof READERS)[Name]>>;
}
