import { Body, Controller, Get, Inject, Module, Param, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { idSchema, siteBodySchema, siteKeySchema, type SiteBody } from '@eskovan/core/document';
import { Documented } from '../common/documented.ts';
import { FileModule } from '../file/file.module.ts';
import { SiteService } from './site.service.ts';

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
}

@Module({ imports: [FileModule], controllers: [SiteController], providers: [SiteService] })
export class SiteModule {}
