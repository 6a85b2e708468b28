import { Document, WebIO } from '@gltf-transform/core';
import { Projection, throughLens } from '../optics/index.ts';
import type { SentView } from './sent-view.ts';

/** Where pictures of other programs may begin, metres. */
const NEAR = 0.05;
/** How far parallel ones reach, metres. */
const FAR = 10_000;

/**
 * The cameras of views as a binary glTF 2.0 (Khronos): in the project's own coordinates, metres and y up, as glTF has
 * them, with what makes their lens in `extras`. A shifted lens cannot be said as a camera of it; see `leftOutOf`.
 */
export async function writeCameras(views: readonly SentView[], sceneName: string): Promise<Uint8Array<ArrayBuffer>> {
  const document = new Document();
  const scene = document.createScene(sceneName);
  document.getRoot().setDefaultScene(scene);
  for (const view of views) {
    const { pose, lens, aspect, name } = view;
    const { window } = new Projection(throughLens(lens), aspect);
    const camera = document.createCamera(name);
    const near = lens.nearCut || NEAR;
    if (lens.parallel === undefined) {
      camera
        .setType('perspective')
        .setYFov(2 * Math.atan((window.top - window.bottom) / 2))
        .setAspectRatio(aspect)
        .setZNear(near);
      if (lens.farCut) camera.setZFar(lens.farCut);
    } else
      camera
        .setType('orthographic')
        .setXMag((window.right - window.left) / 2)
        .setYMag((window.top - window.bottom) / 2)
        .setZNear(near)
        .setZFar(lens.farCut ?? FAR);
    const { focalLengthMm, sensor, shift, focus, fNumber } = lens;
    camera.setExtras({ focalLengthMm, sensor, shift, ...(focus && { focus }), ...(fNumber && { fNumber }) });
    scene.addChild(
      document.createNode(name).setTranslation(pose.position).setRotation(pose.orientation).setCamera(camera),
    );
  }
  return (await new WebIO().writeBinary(document)) as Uint8Array<ArrayBuffer>;
}
