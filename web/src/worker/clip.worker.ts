import { Clip, ClipError, clipMotion, clipSound, type ClipSound } from '@eskovan/render';
import * as Comlink from 'comlink';

const fileOf = (sha256: string) => new URL(`/api/files/${sha256}`, self.location.origin);

const api = {
  /**
   * How long a film is, seconds, once it is certain that it can be shown.
   * @throws ClipError, whose words are for people
   */
  async durationOf(file: File): Promise<number> {
    const clip = await Clip.open(file, file.name);
    try {
      if (!(await clip.at(0).catch(() => null)))
        throw new ClipError(`No picture of ${file.name} could be read: the file is damaged, or not whole.`);
      return clip.duration;
    } finally {
      clip.close();
    }
  },
  /** How the pictures of a kept film move; null where it cannot be told. */
  motionOf: (sha256: string) => clipMotion(fileOf(sha256)),
  /** What is heard of a kept film between two times, seconds; null for one without sound. */
  async soundOf(sha256: string, from: number, to: number): Promise<ClipSound | null> {
    const sound = await clipSound(fileOf(sha256), from, to);
    return (
      sound &&
      Comlink.transfer(
        sound,
        sound.channels.map(({ buffer }) => buffer),
      )
    );
  },
};

export type ClipWorker = typeof api;
Comlink.expose(api);
