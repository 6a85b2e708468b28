import type { Kind } from '@eskovan/core/document';
import { Column, DataType, Model, PrimaryKey, Table } from 'sequelize-typescript';

/** What every saved thing is made of; see core's `Row`. */
export abstract class RowModel extends Model {
  @PrimaryKey
  @Column(DataType.UUID)
  declare id: string;

  @Column({ type: DataType.UUID, field: 'project_id' })
  declare projectId: string;

  @Column(DataType.STRING(120))
  declare name: string;

  @Column(DataType.DOUBLE)
  declare order: number;

  @Column(DataType.JSONB)
  declare body: unknown;

  @Column(DataType.INTEGER)
  declare version: number;

  @Column(DataType.INTEGER)
  declare revision: number;

  @Column(DataType.DATE)
  declare created: Date;

  @Column(DataType.DATE)
  declare updated: Date;

  @Column(DataType.DATE)
  declare deleted: Date | null;
}

const bare = { timestamps: false, freezeTableName: true } as const;

@Table({ ...bare, tableName: 'project' })
class ProjectModel extends RowModel {}
@Table({ ...bare, tableName: 'model' })
class ModelModel extends RowModel {}
@Table({ ...bare, tableName: 'action' })
class ActionModel extends RowModel {}
@Table({ ...bare, tableName: 'light' })
class LightModel extends RowModel {}
@Table({ ...bare, tableName: 'move' })
class MoveModel extends RowModel {}
@Table({ ...bare, tableName: 'view' })
class ViewModel extends RowModel {}
@Table({ ...bare, tableName: 'reel' })
class ReelModel extends RowModel {}
@Table({ ...bare, tableName: 'shot' })
class ShotModel extends RowModel {}
@Table({ ...bare, tableName: 'take' })
class TakeModel extends RowModel {}
@Table({ ...bare, tableName: 'link' })
class LinkModel extends RowModel {}

/** A stored file. Rows of other tables name it by its SHA-256 inside their bodies. */
@Table({ ...bare, tableName: 'file' })
export class FileModel extends Model {
  @PrimaryKey
  @Column(DataType.CHAR(64))
  declare sha256: string;

  @Column(DataType.BIGINT)
  declare size: string;

  @Column({ type: DataType.STRING(100), field: 'media_type' })
  declare mediaType: string;

  @Column(DataType.DATE)
  declare created: Date;
}

/** What was computed from a project's models, by what it was computed from. */
export abstract class ComputedModel extends Model {
  @PrimaryKey
  @Column({ type: DataType.UUID, field: 'project_id' })
  declare projectId: string;

  @PrimaryKey
  @Column(DataType.STRING(40))
  declare key: string;

  @Column(DataType.JSONB)
  declare body: unknown;

  @Column(DataType.DATE)
  declare used: Date;
}
@Table({ ...bare, tableName: 'site' })
export class SiteModel extends ComputedModel {}
@Table({ ...bare, tableName: 'lit' })
export class LitModel extends ComputedModel {}

export const ROW_MODELS = {
  project: ProjectModel,
  model: ModelModel,
  action: ActionModel,
  light: LightModel,
  move: MoveModel,
  view: ViewModel,
  reel: ReelModel,
  shot: ShotModel,
  take: TakeModel,
  link: LinkModel,
} as const satisfies Record<Kind, typeof RowModel>;

export const ALL_MODELS = [...Object.values(ROW_MODELS), FileModel, SiteModel, LitModel];
