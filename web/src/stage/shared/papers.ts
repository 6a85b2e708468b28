import { PAPERS, tallPaper } from '@eskovan/core/sheet';

/** Papers that sheets are printed on, lying and standing. */
export const PAPER_OPTIONS = [
  ...PAPERS.map((paper) => ({ paper, way: 'wide' })),
  ...PAPERS.map((p) => ({ paper: tallPaper(p), way: 'tall' })),
].map(({ paper, way }) => ({ value: `${paper.name} ${way}`, label: `${paper.name}, ${way}`, paper }));
