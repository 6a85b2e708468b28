import { Controller, Get, Inject, Injectable, Module, Param, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { linkBodySchema, reviewPageSchema, sha256Schema, type ReviewPage, type Row } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import type { Response } from 'express';
import { QueryTypes } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { Documented } from '../common/documented.ts';
import { notFound, ProblemException } from '../common/problem.ts';
import { OpenToClients } from '../common/studio.guard.ts';
import { FileModule } from '../file/file.module.ts';
import { FileStore } from '../file/file-store.ts';
import { sendFile } from '../file/send-file.ts';
import { RowService } from '../row/row.service.ts';

const tokenSchema = linkBodySchema.shape.token;

/** What lies behind a link: names and pictures of what was put into it, nothing else. */
@Injectable()
class ReviewService {
  constructor(
    @Inject(RowService) private readonly rows: RowService,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
  ) {}

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

  /** What one of the files that the link's page shows is; null for any other. */
  async typeOf(token: string, sha256: string): Promise<string | null> {
    const { takes, views } = await this.open(token);
    const shown = [
      ...takes.flatMap(({ body }) => [body.file, body.poster]),
      ...views.map(({ body }) => body.thumbnail),
    ];
    return shown.find((file) => file?.sha256 === sha256)?.mediaType ?? null;
  }

  private async open(token: string): Promise<{ project: Row<'project'>; takes: Row<'take'>[]; views: Row<'view'>[] }> {
    // As the index of tokens has it.
    const [found] = await this.sequelize.query<{ id: string; projectId: string }>(
      `SELECT id, project_id AS "projectId" FROM link WHERE body->>'token' = :token AND deleted IS NULL`,
      { type: QueryTypes.SELECT, replacements: { token } },
    );
    if (!found) throw notFound('link');
    const { projectId } = found;
    const [link, project] = await Promise.all([
      this.rows.get('link', projectId, found.id),
      this.rows.get('project', projectId, projectId),
    ]);
    if (link.body.expires && Date.parse(link.body.expires) < Date.now())
      throw new ProblemException(410, { code: 'ended', message: 'This link has ended. Ask the studio for a new one.' });
    const alive = <T extends { deleted: string | null }>(rows: T[]) => rows.filter((row) => row.deleted === null);
    return {
      project,
      // The newest first, as in the studio: it is what one is to look at.
      takes: alive(await this.rows.some('take', projectId, link.body.takeIds)).sort(
        (one, other) => other.body.number - one.body.number,
      ),
      views: alive(await this.rows.some('view', projectId, link.body.viewIds)),
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
    const type = await this.review.typeOf(token, sha256);
    if (type === null) throw notFound('file');
    await sendFile(this.files, sha256, type, response);
  }
}

@Module({ imports: [FileModule], controllers: [ReviewController], providers: [ReviewService] })
export class ReviewModule {}
