import { Document, NodeIO } from '@gltf-transform/core';
import { expect, type Page } from '@playwright/test';
import { PlaneGeometry } from 'three';
import { nodeOf } from './foreign-model.ts';

/** Grain of several sizes as a picture: every place looks like no other one. */
async function grain(page: Page): Promise<Uint8Array> {
  const url = await page.evaluate(() => {
    let state = 7;
    const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
    const layer = (side: number) => {
      const canvas = new OffscreenCanvas(side, side);
      const context = canvas.getContext('2d')!;
      const data = context.createImageData(side, side);
      for (let i = 0; i < side * side; i += 1) {
        const value = 255 * random();
        data.data.set([value, value, value, 255], 4 * i);
      }
      context.putImageData(data, 0, 0);
      return canvas;
    };
    const whole = document.createElement('canvas');
    whole.width = whole.height = 512;
    const pen = whole.getContext('2d')!;
    for (const [side, alpha] of [
      [24, 1],
      [64, 0.5],
      [128, 0.35],
    ] as const) {
      pen.globalAlpha = alpha;
      pen.drawImage(layer(side), 0, 0, 512, 512);
    }
    return whole.toDataURL('image/png');
  });
  expect(url).toContain('base64');
  return new Uint8Array(Buffer.from(url.split(',')[1]!, 'base64'));
}

/** A yard of 12 × 16 m between walls of 6 m, all of grain: pictures of it tell how they move. */
export async function grainyYard(page: Page): Promise<Uint8Array> {
  const document = new Document();
  document.createBuffer();
  const picture = document
    .createTexture('Grain')
    .setMimeType('image/png')
    .setImage(await grain(page));
  const material = document
    .createMaterial('Grain')
    .setBaseColorTexture(picture)
    .setRoughnessFactor(1)
    .setMetallicFactor(0);
  const scene = document.createScene('Yard');
  const wall = (name: string, width: number, height: number, place: (plane: PlaneGeometry) => void) => {
    const plane = new PlaneGeometry(width, height);
    const uv = plane.getAttribute('uv');
    // Four metres of wall a picture.
    for (let i = 0; i < uv.count; i += 1) uv.setXY(i, (uv.getX(i) * width) / 4, (uv.getY(i) * height) / 4);
    place(plane);
    scene.addChild(nodeOf(document, name, plane, material, { NORMAL: 'normal', TEXCOORD_0: 'uv' }));
  };
  wall('Floor', 12, 16, (plane) => plane.rotateX(-Math.PI / 2).translate(0, 0, -6));
  wall('North', 12, 6, (plane) => plane.translate(0, 3, -14));
  wall('South', 12, 6, (plane) => plane.rotateY(Math.PI).translate(0, 3, 2));
  wall('West', 16, 6, (plane) => plane.rotateY(Math.PI / 2).translate(-6, 3, -6));
  wall('East', 16, 6, (plane) => plane.rotateY(-Math.PI / 2).translate(6, 3, -6));
  return new NodeIO().writeBinary(document);
}
