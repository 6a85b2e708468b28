import { Body, Controller, Delete, Get, HttpCode, Inject, Module, Param, Post, Put, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  idSchema,
  lightKeySchema,
  litBodySchema,
  siteBodySchema,
  siteKeySchema,
  type LitBody,
  type SiteBody,
} from '@eskovan/core/document';
import type { Response } from 'express';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { orNothing } from '../common/or-nothing.ts';
import { FileModule } from '../file/file.module.ts';
import { SiteService } from './site.service.ts';

const leaseSchema = z.strictObject({ holder: idSchema });
const leaseReplySchema = z.object({ granted: z.boolean() });

@ApiTags('site')
@Controller('api/projects/:projectId/sites')
class SiteController {
  constructor(@Inject(SiteService) private readonly sites: SiteService) {}

  @Get(':key')
  @Documented({ summary: 'What was computed from a project’s models', reply: siteBodySchema, nothing: true })
  async get(
    @Res({ passthrough: true }) response: Response,
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Param('key', { schema: siteKeySchema }) key: string,
  ): Promise<SiteBody | undefined> {
    return orNothing(response, await this.sites.get('site', projectId, key));
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
    return this.sites.put('site', projectId, key, body);
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

  @Delete(':key/lease/:holder')
  @Documented({
    summary: 'Gives a lease back: whoever waits for it need not wait until it lapses',
    reply: leaseReplySchema,
    problems: [],
  })
  async release(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Param('key', { schema: siteKeySchema }) key: string,
    @Param('holder', { schema: idSchema }) holder: string,
  ): Promise<z.infer<typeof leaseReplySchema>> {
    await this.sites.release(projectId, key, holder);
    return { granted: false };
  }
}

/** The same models in one light or another; who computes a site lights it, too. */
@ApiTags('site')
@Controller('api/projects/:projectId/lit')
class LitController {
  constructor(@Inject(SiteService) private readonly sites: SiteService) {}

  @Get(':key')
  @Documented({ summary: 'A project’s models in a light', reply: litBodySchema, nothing: true })
  async get(
    @Res({ passthrough: true }) response: Response,
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Param('key', { schema: lightKeySchema }) key: string,
  ): Promise<LitBody | undefined> {
    return orNothing(response, await this.sites.get('lit', projectId, key));
  }

  @Put(':key')
  @Documented({
    summary: 'Keeps a light that was computed; the newest of a project stay',
    body: litBodySchema,
    reply: litBodySchema,
    problems: [404, 422],
  })
  put(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Param('key', { schema: lightKeySchema }) key: string,
    @Body({ schema: litBodySchema }) body: LitBody,
  ): Promise<LitBody> {
    return this.sites.put('lit', projectId, key, body);
  }
}

@Module({ imports: [FileModule], controllers: [SiteController, LitController], providers: [SiteService] })
export class SiteModule {}
