import { Inject, Injectable, Module, type OnModuleInit } from '@nestjs/common';
import { SequelizeModule } from '@nestjs/sequelize';
import { Sequelize } from 'sequelize-typescript';
import { CONFIG, type Config } from '../config.ts';
import { migrate } from './migrate.ts';
import { ALL_MODELS } from './rows.ts';

@Injectable()
class Migrator implements OnModuleInit {
  constructor(@Inject(Sequelize) private readonly sequelize: Sequelize) {}

  onModuleInit(): Promise<void> {
    return migrate(this.sequelize);
  }
}

@Module({
  imports: [
    SequelizeModule.forRootAsync({
      inject: [CONFIG],
      useFactory: (config: Config) => ({
        uri: config.databaseUrl,
        dialect: 'postgres' as const,
        models: ALL_MODELS,
        logging: false,
        pool: { max: 10, acquire: 30_000 },
        retryAttempts: 5,
        retryDelay: 1000,
      }),
    }),
  ],
  providers: [Migrator],
})
export class DatabaseModule {}
