import { CanvasSink, type Input, type InputVideoTrack } from 'mediabunny';
import { openFilm } from './open-film.ts';

/** Moving pictures that somebody brought, or why they cannot be used; the words are for people. */
export class ClipError extends Error {
  override name = 'ClipError';
}

const ADVICE = 'An MP4 or MOV file with H.264 in it, or a WebM file, would do.';

/**
 * A film as a source of pictures. Times are seconds since its first picture; it can be asked in any order, and is quickest
 * where it is asked a little further each time.
 */
export class Clip {
  private readonly sink: CanvasSink;

  private constructor(
    private readonly input: Input,
    track: InputVideoTrack,
    /** When its first picture is shown by the file's own clock, seconds. */
    private readonly first: number,
    /** seconds */
    readonly duration: number,
  ) {
    // One picture at a time is looked at.
    this.sink = new CanvasSink(track, { poolSize: 1 });
  }

  /**
   * @param name of the file, for what is said of it
   * @throws ClipError for what is no film, or is coded in a way that this browser cannot read
   */
  static async open(from: Blob | URL, name: string): Promise<Clip> {
    const input = openFilm(from);
    try {
      const track = await input.getPrimaryVideoTrack();
      if (!track) throw new ClipError(`${name} has no moving pictures in it. ${ADVICE}`);
      if (!(await track.canDecode()))
        throw new ClipError(
          `The pictures of ${name} are coded in a way that this browser cannot read. Save it as H.264 in an MP4 file.`,
        );
      const first = await track.getFirstTimestamp();
      const duration = (await track.computeDuration()) - first;
      if (!(duration > 0)) throw new ClipError(`${name} has no length. ${ADVICE}`);
      return new Clip(input, track, first, duration);
    } catch (error) {
      input.dispose();
      throw error instanceof ClipError ? error : new ClipError(`${name} could not be read as a film. ${ADVICE}`);
    }
  }

  /** What it shows at a time; what lies outside it is its first or its last picture. The picture is good until the next. */
  async at(time: number): Promise<HTMLCanvasElement | OffscreenCanvas | null> {
    const within = Math.min(Math.max(0, time), this.duration);
    const shown = await this.sink.getCanvas(this.first + within);
    return shown?.canvas ?? null;
  }

  close(): void {
    this.input.dispose();
  }
}
