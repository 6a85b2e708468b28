import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { presenceSchema, type LiveEvent, type Presence } from '@eskovan/core/document';
import pg from 'pg';
import { Subject, type Observable } from 'rxjs';
import { Sequelize } from 'sequelize-typescript';
import { CONFIG, type Config } from '../config.ts';
import { EDIT_CHANNEL, EditLog } from '../edit/edit-log.ts';
import { Attendance } from './attendance.ts';

const PRESENCE_CHANNEL = 'eskovan_here';
/** Edits read at once. */
const BATCH = 200;
/** Before listening anew after the database went away, milliseconds. */
const RETRY_MS = 1000;

/** Tells open pages what was done and who is here, whichever of several server processes it went through. */
@Injectable()
export class LiveService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger('live');
  private readonly events = new Subject<LiveEvent>();
  private readonly attendance = new Attendance();
  private client: pg.Client | null = null;
  private retry: NodeJS.Timeout | undefined;
  private stopped = false;
  private last = 0;
  private reading: Promise<void> = Promise.resolve();

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(EditLog) private readonly log: EditLog,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    this.last = await this.log.newest();
    await this.listen();
  }

  get all(): Observable<LiveEvent> {
    return this.events;
  }

  /** Number of the newest edit that this process has told of. */
  get newest(): number {
    return this.last;
  }

  here(): Presence[] {
    return this.attendance.now(Date.now());
  }

  /** Notes that a page is open, for all server processes. */
  async note(presence: Presence): Promise<void> {
    await this.sequelize.query('SELECT pg_notify(:channel, :payload)', {
      replacements: { channel: PRESENCE_CHANNEL, payload: JSON.stringify(presence) },
    });
  }

  private async listen(): Promise<void> {
    const client = new pg.Client({ connectionString: this.config.databaseUrl, application_name: 'eskovan live' });
    client.on('error', () => this.lost(client));
    client.on('end', () => this.lost(client));
    client.on('notification', ({ channel, payload }) => {
      if (channel === EDIT_CHANNEL) this.catchUp();
      else if (payload !== undefined) this.attend(payload);
    });
    this.client = client;
    await client.connect();
    await client.query(`LISTEN ${EDIT_CHANNEL}; LISTEN ${PRESENCE_CHANNEL}`);
    // What was done while nobody listened.
    this.catchUp();
  }

  /** The connection is gone: it is made anew, and nothing that was done meanwhile is missed. */
  private lost(client: pg.Client): void {
    if (this.stopped || this.client !== client) return;
    this.client = null;
    this.retry = setTimeout(() => {
      this.listen().catch((error: unknown) => {
        this.logger.warn(`not listening yet: ${error instanceof Error ? error.message : String(error)}`);
        const failed = this.client;
        if (failed) this.lost(failed);
      });
    }, RETRY_MS);
  }

  private catchUp(): void {
    this.reading = this.reading
      .then(async () => {
        for (;;) {
          const entries = await this.log.after(this.last, { most: BATCH });
          for (const entry of entries) {
            this.last = entry.seq;
            this.events.next({ kind: 'edit', entry });
          }
          if (entries.length < BATCH) return;
        }
      })
      .catch((error: unknown) => this.logger.warn(error instanceof Error ? error.message : String(error)));
  }

  private attend(payload: string): void {
    const presence = presenceSchema.safeParse(JSON.parse(payload));
    if (presence.success && this.attendance.note(presence.data, Date.now()))
      this.events.next({ kind: 'here', here: this.here() });
  }

  /** Open event streams would keep the server from stopping. */
  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.retry);
    this.events.complete();
    await this.reading;
    await this.client?.end().catch(() => {});
  }
}
