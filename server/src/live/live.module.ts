import {
  Body,
  Controller,
  Get,
  Headers,
  HttpCode,
  Inject,
  Module,
  Post,
  Query,
  Sse,
  type MessageEvent,
} from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { presenceSchema, type LiveEvent, type Presence } from '@eskovan/core/document';
import {
  concat,
  defer,
  endWith,
  from,
  ignoreElements,
  interval,
  map,
  merge,
  mergeAll,
  of,
  takeUntil,
  type Observable,
} from 'rxjs';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { EditLog } from '../edit/edit-log.ts';
import { LiveService } from './live.service.ts';

/** Edits told to a stream that comes back; after more it is told where it is, and its pages catch up. */
const MOST_MISSED = 200;
/** Proxies and browsers take a silent stream for a dead one, milliseconds. */
const PULSE_MS = 25_000;

const afterSchema = z.strictObject({ after: z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER).optional() });

@ApiTags('live')
@Controller('api/live')
class LiveController {
  constructor(
    @Inject(LiveService) private readonly live: LiveService,
    @Inject(EditLog) private readonly log: EditLog,
  ) {}

  @Sse()
  @Documented({ summary: 'Server-sent events: what was done in all projects, and who is here; resumes after an id' })
  events(
    @Query({ schema: afterSchema }) { after }: z.infer<typeof afterSchema>,
    @Headers('last-event-id') lastId?: string,
  ): Observable<MessageEvent> {
    const resumed = lastId !== undefined && /^\d{1,15}$/.test(lastId) ? Number(lastId) : after;
    const opening = of<LiveEvent[]>({ kind: 'hello', seq: this.live.newest }, { kind: 'here', here: this.live.here() });
    const pulse = interval(PULSE_MS).pipe(map((): LiveEvent => ({ kind: 'here', here: this.live.here() })));
    const missed = defer(() => (resumed === undefined ? of([]) : from(this.missed(resumed)))).pipe(mergeAll());
    // Listens before it looks back: an edit may come twice, none is missed. The end of the former ends the stream.
    const rest = merge(concat(opening, missed), pulse).pipe(
      takeUntil(this.live.all.pipe(ignoreElements(), endWith(null))),
    );
    return merge(this.live.all, rest).pipe(
      map((event) => ({
        data: event,
        ...(event.kind === 'edit'
          ? { id: String(event.entry.seq) }
          : event.kind === 'hello' && resumed === undefined
            ? { id: String(event.seq) }
            : {}),
      })),
    );
  }

  @Post('here')
  @HttpCode(204)
  @Documented({ summary: 'Says that a page is open; it is forgotten a minute later', body: presenceSchema })
  async here(@Body({ schema: presenceSchema }) presence: Presence): Promise<void> {
    await this.live.note(presence);
  }

  @Get('people')
  @Documented({ summary: 'Who is here', reply: z.array(presenceSchema) })
  people(): Presence[] {
    return this.live.here();
  }

  private async missed(after: number): Promise<LiveEvent[]> {
    const entries = await this.log.after(after, { most: MOST_MISSED + 1 });
    return entries.length > MOST_MISSED
      ? [{ kind: 'hello', seq: await this.log.newest() }]
      : entries.map((entry) => ({ kind: 'edit', entry }));
  }
}

@Module({ controllers: [LiveController], providers: [LiveService] })
export class LiveModule {}
