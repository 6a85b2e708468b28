/** What of a file could not be used, counted, so that nothing is lost in silence. */
export class LeftOut {
  private readonly counts = new Map<string, number>();
  private faces = 0;

  /** Faces that the file holds, used or not: what is left out is said as a share of them. */
  offered(faces: number): void {
    this.faces += faces;
  }

  /** @param what in the plural, as in “3 lines” */
  add(what: 'lines' | 'points' | 'empty faces' | 'curves', count = 1): void {
    if (count > 0) this.counts.set(what, (this.counts.get(what) ?? 0) + count);
  }

  /** One sentence for each kind. */
  notes(): string[] {
    return [...this.counts].map(([what, count]) => {
      const number = count.toLocaleString('en');
      if (what !== 'empty faces')
        return `${number} ${count === 1 ? what.slice(0, -1) : what} left out: only surfaces are shown.`;
      return `${number} ${count === 1 ? 'face has' : 'faces have'} no area and ${count === 1 ? 'is' : 'are'} left out (${shareOfFaces(count, this.faces)}).`;
    });
  }
}

/** How much of a model some of its faces are, in words. */
export function shareOfFaces(count: number, faces: number): string {
  const share = faces > 0 ? (100 * count) / faces : 0;
  return `${share >= 0.1 ? `${share.toFixed(1)} %` : 'less than 0.1 %'} of the model’s faces`;
}
