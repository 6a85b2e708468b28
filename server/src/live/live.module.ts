import { Controller, Global, Inject, Module, Param, Sse, type MessageEvent } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { idSchema } from '@eskovan/core/document';
import { map, type Observable } from 'rxjs';
import { Documented } from '../common/documented.ts';
import { LiveService } from './live.service.ts';

@ApiTags('live')
@Controller('api/projects/:projectId/events')
class LiveController {
  constructor(@Inject(LiveService) private readonly live: LiveService) {}

  @Sse()
  @Documented({ summary: 'Server-sent events: which rows of the project changed' })
  events(@Param('projectId', { schema: idSchema }) projectId: string): Observable<MessageEvent> {
    return this.live.of(projectId).pipe(map((change) => ({ data: change })));
  }
}

@Global()
@Module({ controllers: [LiveController], providers: [LiveService], exports: [LiveService] })
export class LiveModule {}
