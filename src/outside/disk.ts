import { statfs } from 'node:fs/promises';
import { tmpdir } from 'node:os';

const LEAST_FREE_BYTES = 200 * 1024 * 1024;

/** Whether there is room where the programs write: uploads on their way, and logs. */
export async function hasRoom(places: readonly string[] = [tmpdir(), process.cwd()]): Promise<boolean> {
  const free = await Promise.all(
    places.map(async (place) => {
      const { bavail, bsize } = await statfs(place);
      return bavail * bsize;
    }),
  );
  return free.every((bytes) => bytes >= LEAST_FREE_BYTES);
}
