import pg from 'pg';

/**
 * Hears what `announce` sends, from any process, until `stop` is called; reconnects when the server goes away.
 *
 * @param heard gets the business whose rows changed
 */
export function listen(heard: (businessId: string) => void): { stop: () => Promise<void> } {
  let stopped = false;
  let client: pg.Client | undefined;
  const connect = async () => {
    if (stopped) return;
    const fresh = new pg.Client({ connectionString: process.env.DATABASE_URL });
    client = fresh;
    const again = () => {
      fresh.removeAllListeners('end');
      if (!stopped) setTimeout(() => void connect(), 1000);
    };
    fresh.on('error', () => undefined);
    fresh.on('end', again);
    fresh.on('notification', (message) => heard(message.payload ?? ''));
    try {
      await fresh.connect();
      await fresh.query('listen dahlia_changed');
    } catch {
      again();
    }
  };
  void connect();
  return {
    stop: async () => {
      stopped = true;
      await client?.end().catch(() => undefined);
    },
  };
}
