/** A file that cannot be read: which, where in it, why. The message is made for people. */
export class FormatError extends Error {
  constructor(
    readonly code: 'empty' | 'wrong-type' | 'truncated' | 'damaged' | 'unsupported' | 'no-geometry' | 'too-large',
    readonly fileName: string,
    /** What is wrong and where, one sentence. */
    reason: string,
    /** What to do about it, one sentence. */
    advice: string,
  ) {
    super(`${fileName}: ${reason} ${advice}`);
    this.name = 'FormatError';
  }
}

export const noGeometry = (fileName: string) =>
  new FormatError(
    'no-geometry',
    fileName,
    'it holds no triangles.',
    'Export the model with its meshes; cameras, lights, lines and points alone cannot be shown.',
  );
