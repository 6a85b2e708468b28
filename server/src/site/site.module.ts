import { Body, Controller, Get, HttpCode, Inject, Module, Param, Post, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { idSchema, siteBodySchema, siteKeySchema, type SiteBody } from '@eskovan/core/document';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { FileModule } from '../file/file.module.ts';
import { SiteService } from './site.service.ts';

const leaseSchema = z.strictObject({ holder: idSchema });
const leaseReplySchema = z.object({ granted: z.boolean() });

@ApiTags('site')
@Controller('api/projects/:projectId/sites')
class SiteController {
  constructor(@Inject(SiteService) private readonly sites: SiteService) {}

  @Get(':key')
  @Documented({ summary: 'What was computed from a project’s models', reply: siteBodySchema, problems: [404] })
  get(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Param('key', { schema: siteKeySchema }) key: string,
  ): Promise<SiteBody> {
    return this.sites.get(projectId, key);
  }

  @Put(':key')
  @Documented({
    summary: 'Keeps what was computed; the newest few of a project stay',
    body: siteBodySchema,
    reply: siteBodySchema,
    problems: [404, 422],
  })
  put(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Param('key', { schema: siteKeySchema }) key: string,
    @Body({ schema: siteBodySchema }) body: SiteBody,
  ): Promise<SiteBody> {
    return this.sites.put(projectId, key, body);
  }

  @Post(':key/lease')
  @HttpCode(200)
  @Documented({
    summary: 'Lets one page compute a site for all; it lapses by itself',
    body: leaseSchema,
    reply: leaseReplySchema,
    problems: [404, 410],
  })
  async lease(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Param('key', { schema: siteKeySchema }) key: string,
    @Body({ schema: leaseSchema }) { holder }: z.infer<typeof leaseSchema>,
  ): Promise<z.infer<typeof leaseReplySchema>> {
    return { granted: await this.sites.lease(projectId, key, holder) };
  }
}

@Module({ imports: [FileModule], controllers: [SiteController], providers: [SiteService] })
export class SiteModule {}
