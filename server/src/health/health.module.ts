import { Controller, Get, Inject, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Sequelize } from 'sequelize-typescript';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';

const healthSchema = z.object({ status: z.literal('ok'), database: z.literal('ok') });

@ApiTags('health')
@Controller('api/health')
class HealthController {
  constructor(@Inject(Sequelize) private readonly sequelize: Sequelize) {}

  @Get()
  @Documented({ summary: 'Is the server up, and does its database answer?', reply: healthSchema, problems: [500] })
  async health(): Promise<z.infer<typeof healthSchema>> {
    await this.sequelize.query('SELECT 1');
    return { status: 'ok', database: 'ok' };
  }
}

@Module({ controllers: [HealthController] })
export class HealthModule {}
