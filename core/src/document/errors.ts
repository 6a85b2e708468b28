/** A saved or received document that cannot be used as it is. */
export class DocumentError extends Error {
  constructor(
    readonly code: 'unknown-version' | 'invalid-body',
    message: string,
  ) {
    super(message);
    this.name = 'DocumentError';
  }
}
