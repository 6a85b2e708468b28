/** A library of others that timecodes are checked against. */
declare module 'smpte-timecode' {
  export default class Timecode {
    constructor(code: string | number, frameRate: number, dropFrame?: boolean);
    readonly frameCount: number;
    toString(): string;
  }
}
