import { Controller, Get, Inject, Injectable, Module, Param, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { linkBodySchema, reviewPageSchema, sha256Schema, type ReviewPage, type Row } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import type { Response } from 'express';
import { Documented } from '../common/documented.ts';
import { notFound, ProblemException } from '../common/problem.ts';
import { OpenToClients } from '../common/studio.guard.ts';
import { ROW_MODELS, type RowModel } from '../database/rows.ts';
import { FileModule } from '../file/file.module.ts';
import { FileStore } from '../file/file-store.ts';
import { sendFile } from '../file/send-file.ts';
import { RowService } from '../row/row.service.ts';

const tokenSchema = linkBodySchema.shape.token;

/** What lies behind a link: names and pictures of what was put into it, nothing else. */
@Injectable()
class ReviewService {
  constructor(@Inject(RowService) private readonly rows: RowService) {}

  async page(token: string): Promise<ReviewPage> {
    const { project, takes, views } = await this.open(token);
    return {
      project: project.name,
      round: project.body.round,
      takes: takes.map(({ id, name, body }) => ({
        id,
        name,
        kind: body.kind,
        width: body.width,
        height: body.height,
        seconds: body.kind === 'video' ? frameTime(body.frames, body.rate) : null,
        file: body.file.sha256,
        mediaType: body.file.mediaType,
        poster: body.poster?.sha256 ?? null,
      })),
      views: views.map(({ id, name, body }) => ({ id, name, picture: body.thumbnail?.sha256 ?? null })),
    };
  }

  /** Is this file one that the link's page shows? */
  async shows(token: string, sha256: string): Promise<boolean> {
    const { takes, views } = await this.page(token);
    return (
      takes.some((take) => take.file === sha256 || take.poster === sha256) ||
      views.some((view) => view.picture === sha256)
    );
  }

  private async open(token: string): Promise<{ project: Row<'project'>; takes: Row<'take'>[]; views: Row<'view'>[] }> {
    const found = await ROW_MODELS.link.findOne<RowModel>({ where: { 'body.token': token, deleted: null } as never });
    if (!found) throw notFound('link');
    const link = await this.rows.get('link', found.projectId, found.id);
    if (link.body.expires && Date.parse(link.body.expires) < Date.now())
      throw new ProblemException(410, { code: 'ended', message: 'This link has ended. Ask the studio for a new one.' });
    const project = await this.rows.get('project', link.projectId, link.projectId);
    const pick = <T extends { id: string }>(rows: T[], ids: string[]) => rows.filter((row) => ids.includes(row.id));
    return {
      project,
      takes: pick(await this.rows.list('take', link.projectId), link.body.takeIds),
      views: pick(await this.rows.list('view', link.projectId), link.body.viewIds),
    };
  }
}

@ApiTags('review')
@OpenToClients()
@Controller('api/review/:token')
class ReviewController {
  constructor(
    @Inject(ReviewService) private readonly review: ReviewService,
    @Inject(FileStore) private readonly files: FileStore,
  ) {}

  @Get()
  @Documented({ summary: 'What a link shows', reply: reviewPageSchema, problems: [404, 410] })
  page(@Param('token', { schema: tokenSchema }) token: string): Promise<ReviewPage> {
    return this.review.page(token);
  }

  @Get('files/:sha256')
  @Documented({ summary: 'A film or picture of the link', problems: [404, 410] })
  async file(
    @Param('token', { schema: tokenSchema }) token: string,
    @Param('sha256', { schema: sha256Schema }) sha256: string,
    @Res() response: Response,
  ): Promise<void> {
    if (!(await this.review.shows(token, sha256))) throw notFound('file');
    await sendFile(this.files, sha256, response);
  }
}

@Module({ imports: [FileModule], controllers: [ReviewController], providers: [ReviewService] })
export class ReviewModule {}
