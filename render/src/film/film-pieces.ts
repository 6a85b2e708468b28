/** Bytes that were written, from a place of the film on. */
interface Piece {
  from: number;
  bytes: Blob;
}

/**
 * A film as it is made, in pieces that the browser looks after: it keeps large ones on disk, and nothing of the page can take
 * them away. What is written over an earlier piece counts.
 */
export class FilmPieces {
  /** In their order; none lies over another. */
  private pieces: Piece[] = [];

  write(bytes: Uint8Array<ArrayBuffer>, position: number): void {
    const end = position + bytes.length;
    const kept = this.pieces.flatMap(({ from, bytes: old }): Piece[] => {
      const to = from + old.size;
      if (to <= position || from >= end) return [{ from, bytes: old }];
      return [
        { from, bytes: old.slice(0, Math.max(0, position - from)) },
        { from: Math.min(end, to), bytes: old.slice(Math.min(end, to) - from) },
      ].filter((piece) => piece.bytes.size > 0);
    });
    // A copy: who writes goes on with its own memory.
    kept.push({ from: position, bytes: new Blob([bytes]) });
    this.pieces = kept.sort((a, b) => a.from - b.from);
  }

  /** The whole film; zeros where nothing was written. */
  whole(type: string): Blob {
    const all: BlobPart[] = [];
    let at = 0;
    for (const { from, bytes } of this.pieces) {
      if (from > at) all.push(new Uint8Array(from - at));
      all.push(bytes);
      at = from + bytes.size;
    }
    return new Blob(all, { type });
  }
}
