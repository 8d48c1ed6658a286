import pg from 'pg';

/** Something happened: to which kind of thing of a company, and to which one; null where it is about many. */
export interface Change {
  type: string;
  company: string;
  id: string | null;
}
type Listener = (change: Change) => void;

/** Hears what the database tells when a transaction commits, and passes it to everyone who watches. */
export class Live {
  readonly #listeners = new Set<Listener>();
  #client: pg.Client | null = null;
  #closed = false;

  async listen(url: string): Promise<void> {
    const client = new pg.Client({ connectionString: url });
    client.on('notification', ({ payload }) => {
      if (payload) this.tell(JSON.parse(payload) as Change);
    });
    client.on('error', () => this.#again(url));
    client.on('end', () => this.#again(url));
    await client.connect();
    await client.query('LISTEN ledgerline');
    this.#client = client;
  }

  #again(url: string): void {
    if (this.#closed || !this.#client) return;
    this.#client = null;
    setTimeout(() => {
      if (!this.#closed) this.listen(url).catch(() => this.#again(url));
    }, 1000).unref();
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
    const client = this.#client;
    this.#client = null;
    await client?.end().catch(() => undefined);
  }
}
