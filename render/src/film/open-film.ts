import { ALL_FORMATS, BlobSource, Input, UrlSource } from 'mediabunny';

/** A film file to be read: one that is at hand, or one at an address, of which only what is needed is fetched. */
export const openFilm = (from: Blob | URL): Input =>
  new Input({ source: from instanceof Blob ? new BlobSource(from) : new UrlSource(from), formats: ALL_FORMATS });
