import pg from 'pg';
import { logLine } from '../log.ts';

/** Something happened: to which kind of thing of a company, and to which one; null where it is about many. */
export interface Change {
  type: string;
  company: string;
  id: string | null;
}
type Listener = (change: Change) => void;

/** Waits between tries to listen again, in milliseconds: soon at first, then every ten seconds for as long as it takes. */
const waits = [100, 500, 1000, 3000, 10_000];

/**
 * Hears what the database tells when a transaction commits, and passes it to everyone who watches. Once it hears again after having been
 * away it tells a change of kind "away": whatever happened meanwhile was missed.
 */
export class Live {
  readonly #listeners = new Set<Listener>();
  #client: pg.Client | null = null;
  #timer: ReturnType<typeof setTimeout> | null = null;
  #closed = false;

  /** Begins to listen. Throws where the database is not there now; after that, an outage is waited out. */
  async listen(url: string): Promise<void> {
    const client = new pg.Client({ connectionString: url, application_name: 'ledgerline-live', keepAlive: true });
    let lost = false;
    const away = () => {
      if (lost) return;
      lost = true;
      client.end().catch(() => undefined);
      if (this.#client === client) this.#again(url, 0);
    };
    client.on('notification', ({ payload }) => {
      if (payload) this.tell(JSON.parse(payload) as Change);
    });
    client.on('error', away);
    client.on('end', away);
    try {
      await client.connect();
      await client.query('LISTEN ledgerline');
    } catch (error) {
      lost = true;
      client.end().catch(() => undefined);
      throw error;
    }
    if (this.#closed) await client.end();
    else this.#client = client;
  }

  #again(url: string, tried: number): void {
    if (this.#closed) return;
    if (tried === 0) logLine('Live updates: the database is away.');
    this.#client = null;
    this.#timer = setTimeout(
      () => {
        this.listen(url).then(
          () => {
            logLine('Live updates: the database is back.');
            this.tell({ type: 'away', company: '', id: null });
          },
          () => this.#again(url, tried + 1),
        );
      },
      waits[Math.min(tried, waits.length - 1)],
    );
    this.#timer.unref();
  }

  /** Whether it hears the database now. */
  get hears(): boolean {
    return this.#client !== null;
  }

  tell(change: Change): void {
    for (const listener of this.#listeners) listener(change);
  }

  watch(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => {
      this.#listeners.delete(listener);
    };
  }

  async close(): Promise<void> {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
    const client = this.#client;
    this.#client = null;
    await client?.end().catch(() => undefined);
  }
}
