import { Controller, Get, Inject, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Sequelize } from 'sequelize-typescript';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { CONFIG, type Config } from '../config.ts';

const healthSchema = z.object({ status: z.literal('ok'), database: z.literal('ok') });

@ApiTags('health')
@Controller('api/health')
class HealthController {
  constructor(@Inject(Sequelize) private readonly sequelize: Sequelize) {}

  @Get()
  @Documented({ summary: 'Is the server up, and does its database answer?', reply: healthSchema, problems: [503] })
  async health(): Promise<z.infer<typeof healthSchema>> {
    await this.sequelize.query('SELECT 1');
    return { status: 'ok', database: 'ok' };
  }
}

const settingsSchema = z.object({
  /** How clients reach the pages of review links, without a slash at its end. */
  reviewAddress: z.string(),
});

@ApiTags('health')
@Controller('api/settings')
class SettingsController {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  @Get()
  @Documented({ summary: 'What the studio must know of its server', reply: settingsSchema })
  settings(): z.infer<typeof settingsSchema> {
    const { publicUrl, reviewPort } = this.config;
    return { reviewAddress: publicUrl ?? `http://localhost:${reviewPort}` };
  }
}

@Module({ controllers: [HealthController, SettingsController] })
export class HealthModule {}
