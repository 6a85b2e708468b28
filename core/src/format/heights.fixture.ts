import { strToU8 } from 'fflate';
import { writeArrayBuffer } from 'geotiff';
import volcano from '../../../node_modules/vega-datasets/data/volcano.json' with { type: 'json' };

interface Heights {
  width: number;
  height: number;
  values: number[];
}

/**
 * Heights of Maunga Whau (Mount Eden), Auckland, on a grid of 10 m by 10 m, from 94 m to 195 m. Digitised from a
 * topographic map by Ross Ihaka; the data set `volcano` of the R manual, here from the package vega-datasets.
 */
export const VOLCANO: Heights = volcano;
export const VOLCANO_CELL = 10;

/** As ESRI ASCII grid. */
export function volcanoAsciiGrid(): Uint8Array {
  const { width, height, values } = VOLCANO;
  const rows = Array.from({ length: height }, (_, r) => values.slice(r * width, (r + 1) * width).join(' '));
  return strToU8(
    `ncols ${width}\nnrows ${height}\nxllcorner 0\nyllcorner 0\ncellsize ${VOLCANO_CELL}\nNODATA_value -9999\n${rows.join('\n')}\n`,
  );
}

/** As GeoTIFF in projected metres, by the package geotiff. */
export async function volcanoGeoTiff(): Promise<Uint8Array> {
  const { width, height, values } = VOLCANO;
  const buffer = (await writeArrayBuffer(Float32Array.from(values), {
    width,
    height,
    ModelPixelScale: [VOLCANO_CELL, VOLCANO_CELL, 0],
    ModelTiepoint: [0, 0, 0, 0, 0, 0],
    GTModelTypeGeoKey: 1,
    GTRasterTypeGeoKey: 1,
    ProjectedCSTypeGeoKey: 2193,
  })) as ArrayBuffer;
  return new Uint8Array(buffer);
}
