import { XMLBuilder } from 'fast-xml-parser';
import { strToU8 } from 'fflate';
import type { Vec3 } from '../document/index.ts';
import { toDegrees } from '../geometry/index.ts';
import { zipFiles } from '../format/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import type { SentView } from './sent-view.ts';
import type { World } from './world.ts';

export interface BcfOrder {
  world: World;
  /** Who sends them. */
  author: string;
  /** When they are sent. */
  date: Date;
}

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });
const xml = (tree: object): Uint8Array => strToU8(HEAD + (builder.build(tree) as string));
const STATUS: Record<SentView['status'], string> = { draft: 'Draft', ready: 'Ready', approved: 'Approved' };
const TYPE = 'View';

/**
 * Views as a BIM Collaboration Format file, version 3.0 (buildingSMART): one topic a view, with its camera and a picture.
 * A shifted lens cannot be said in it; see `leftOutOf`.
 */
export function writeBcf(views: readonly SentView[], order: BcfOrder): Uint8Array<ArrayBuffer> {
  const files = new Map<string, Uint8Array>();
  files.set('bcf.version', xml({ Version: { '@VersionId': '3.0' } }));
  files.set(
    'extensions.xml',
    xml({
      Extensions: {
        TopicTypes: { TopicType: [TYPE] },
        TopicStatuses: { TopicStatus: Object.values(STATUS) },
        Users: { User: [order.author] },
      },
    }),
  );
  for (const view of views) {
    files.set(`${view.id}/markup.bcf`, xml({ Markup: { Topic: topicOf(view, order) } }));
    files.set(
      `${view.id}/viewpoint.bcfv`,
      xml({ VisualizationInfo: { '@Guid': view.id, ...cameraOf(view, order.world) } }),
    );
    if (view.snapshot) files.set(`${view.id}/snapshot.${view.snapshot.type}`, view.snapshot.bytes);
  }
  return zipFiles(files);
}

function topicOf({ id, name, status, note, number, snapshot }: SentView, { author, date }: BcfOrder): object {
  return {
    '@Guid': id,
    '@TopicType': TYPE,
    '@TopicStatus': STATUS[status],
    Title: name,
    Index: number,
    CreationDate: date.toISOString(),
    CreationAuthor: author,
    ...(note && { Description: note }),
    Viewpoints: {
      ViewPoint: {
        '@Guid': id,
        Viewpoint: 'viewpoint.bcfv',
        ...(snapshot && { Snapshot: `snapshot.${snapshot.type}` }),
      },
    },
  };
}

const point = ([x, y, z]: Vec3) => ({ X: x, Y: y, Z: z });

function cameraOf({ pose, lens, aspect }: SentView, world: World): object {
  const projection = new Projection(throughLens(lens), aspect, pose.position, pose.orientation);
  const place = {
    CameraViewPoint: point(world.place(pose.position)),
    CameraDirection: point(world.direction(projection.fromAxes([0, 0, 1]))),
    CameraUpVector: point(world.direction(projection.fromAxes([0, 1, 0]))),
  };
  const { bottom, top } = projection.window;
  const camera =
    lens.parallel === undefined
      ? {
          PerspectiveCamera: {
            ...place,
            FieldOfView: toDegrees(2 * Math.atan((top - bottom) / 2)),
            AspectRatio: aspect,
          },
        }
      : { OrthogonalCamera: { ...place, ViewToWorldScale: lens.parallel, AspectRatio: aspect } };
  const planes = cutsOf(projection, world);
  return planes.length === 0 ? camera : { ...camera, ClippingPlanes: { ClippingPlane: planes } };
}

/** What is cut off, as planes: each points to the side that is taken away. */
function cutsOf(projection: Projection, world: World): object[] {
  const { nearCut, farCut } = projection.view;
  const plane = (ahead: number, toward: 1 | -1) => {
    const at = projection.fromAxes([0, 0, ahead]).map((value, k) => projection.position[k]! + value) as Vec3;
    return {
      Location: point(world.place(at)),
      Direction: point(world.direction(projection.fromAxes([0, 0, toward]))),
    };
  };
  return [...(nearCut ? [plane(nearCut, -1)] : []), ...(farCut ? [plane(farCut, 1)] : [])];
}
