/** Every address of the application as the code has it, with what it takes. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { takesOf } from '@/app/answer';
import { mostAt } from '@/app/limits';
import type { Shape } from '@/input/checked';
import { addressOf } from '../../../bin/docs/routes';

/** An address with a method: `[name]` stands for its parameters; the class of its input and where that stands, where it has one. */
export type Door = {
  readonly address: string;
  readonly method: string;
  readonly shape: Shape<object> | null;
  readonly from: 'body' | 'address';
  /** Bytes of its body at most; 0 where it takes none. */
  readonly most: number;
};

const ROOT = 'src/app';
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;

/** All of them, pages too (whose input is what stands in the address). */
export async function allDoors(): Promise<Door[]> {
  const doors: Door[] = [];
  for (const file of readdirSync(ROOT, { recursive: true, encoding: 'utf8' }).sort()) {
    const address = addressOf(file);
    if (/(^|\/)page\.tsx$/.test(file)) doors.push({ address, method: 'GET', shape: null, from: 'address', most: 0 });
    if (!/(^|\/)route\.ts$/.test(file)) continue;
    const handlers = (await import(pathToFileURL(join(ROOT, file)).href)) as Record<string, unknown>;
    for (const method of METHODS) {
      if (!handlers[method]) continue;
      const takes = takesOf(handlers[method]);
      const from = method === 'GET' ? 'address' : (takes?.from ?? 'body');
      doors.push({
        address,
        method,
        shape: takes?.shape ?? null,
        from,
        most: from === 'body' ? mostAt(address) : 0,
      });
    }
  }
  return doors;
}
