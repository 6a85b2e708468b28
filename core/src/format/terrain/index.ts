export { isAsciiGrid, readAsciiGrid } from './ascii-grid.ts';
export { isTiff, readGeoTiff } from './geotiff.ts';
