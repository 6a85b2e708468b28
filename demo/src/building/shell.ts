import { seeded, type Builder, type MaterialName, type Point } from '../kit/index.ts';
import * as D from './dimensions.ts';
import { door, skirting, wall, window, type Opening, type WallRun } from './walls.ts';

const doorAt = (from: number, base = D.FLOOR): Opening => ({
  from,
  to: from + D.DOOR.width,
  sill: base,
  head: base + D.DOOR.height,
});
const windowAt = (from: number, to: number, sill: number, head: number, base = D.FLOOR): Opening => ({
  from,
  to,
  sill: base + sill,
  head: base + head,
});
const half = D.OUTER_WALL / 2;

export const ENTRANCE: Opening = { from: 11, to: 13, sill: D.FLOOR, head: D.FLOOR + 2.5 };
const MARSH_WINDOW: Opening = { from: 9.2, to: 14.8, sill: D.FLOOR, head: 5.6 };

/** Outer walls with their windows. Each facade is one run, so that plan and elevation read as one wall. */
function outerWalls(b: Builder): void {
  const outer = { thickness: D.OUTER_WALL, base: 0, top: D.EAVES } as const;
  const north: WallRun = { ...outer, along: 'x', at: half, from: 0, to: D.EAST };
  const northWindows = [
    windowAt(1.6, 3.4, 0.75, 2.4),
    windowAt(4.8, 6.6, 0.75, 2.4),
    windowAt(17.4, 19.2, 0.75, 2.4),
    windowAt(20.6, 22.8, 0.75, 2.4),
  ];
  const south: WallRun = { ...outer, along: 'x', at: D.SOUTH - half, from: 0, to: D.EAST };
  const southWindows = [
    windowAt(1.4, 3.4, 0.9, 2.4),
    windowAt(4.6, 6.6, 0.9, 2.4),
    windowAt(17, 18.7, 0.45, 3.6),
    windowAt(19.4, 21.1, 0.45, 3.6),
    windowAt(21.8, 23.3, 0.45, 3.6),
  ];
  const west: WallRun = { ...outer, along: 'z', at: half, from: D.OUTER_WALL, to: D.SOUTH - D.OUTER_WALL };
  const westWindows = [windowAt(2.2, 4.4, 0.45, 2.4), windowAt(8.2, 10, 0.9, 2.4)];
  const east: WallRun = { ...west, at: D.EAST - half };
  const eastWindows = [windowAt(1.6, 4, 0.75, 2.4), windowAt(7, 10.4, 0.45, 3.4)];
  // The deck has a ribbon of glass above the café windows: the upper half of the north and east walls is its own run.
  const split = D.DECK - D.DECK_THICKNESS;
  const ribbonNorth = windowAt(17, 23.2, 0.85, 1.95, D.DECK);
  const ribbonEast = windowAt(0.9, 4.9, 0.85, 2.2, D.DECK);
  b.within('Building / Outer walls', () => {
    wall(b, { ...north, top: split, openings: [...northWindows, ENTRANCE] });
    wall(b, { ...north, base: split, openings: [ribbonNorth, windowAt(9.4, 14.6, 0.9, 1.9, D.DECK)] });
    wall(b, { ...south, openings: [...southWindows, MARSH_WINDOW] });
    wall(b, { ...west, openings: westWindows });
    wall(b, { ...east, top: split, openings: eastWindows });
    wall(b, { ...east, base: split, openings: [ribbonEast] });
    for (const at of [half, D.EAST - half]) gable(b, at, D.OUTER_WALL);
  });
  b.within('Building / Windows', () => {
    for (const o of northWindows) window(b, north, o, { panes: 2, inside: 1 });
    for (const o of southWindows)
      window(b, south, o, {
        panes: o.head - o.sill > 2.5 ? 1 : 2,
        transoms: o.head - o.sill > 2.5 ? [D.FLOOR + 2.5] : [],
        inside: -1,
      });
    for (const o of westWindows) window(b, west, o, { panes: 2, inside: 1 });
    for (const o of eastWindows) window(b, east, o, { panes: 3, inside: -1 });
    window(b, { ...north, base: split }, ribbonNorth, { panes: 5, inside: 1 });
    window(b, { ...north, base: split }, windowAt(9.4, 14.6, 0.9, 1.9, D.DECK), { panes: 4, inside: 1 });
    window(b, { ...east, base: split }, ribbonEast, { panes: 3, inside: -1 });
    window(b, { ...south, base: D.FLOOR }, MARSH_WINDOW, {
      panes: 4,
      transoms: [D.FLOOR + 2.5, D.FLOOR + 4],
      inside: -1,
      frame: 'Spruce frame',
    });
  });
  b.within('Building / Entrance doors', () => {
    door(b, { ...north, base: D.FLOOR }, ENTRANCE);
    // Two glazed leaves, standing open inward.
  });
  for (const [side, hinge, sense] of [
    ['West', ENTRANCE.from + 0.04, 1],
    ['East', ENTRANCE.to - 0.04, -1],
  ] as const)
    b.within(`Building / Entrance doors / ${side} door`, () => glazedLeaf(b, hinge, sense));
  b.within('Building / Skirting', () => {
    const inner = { from: D.OUTER_WALL, base: D.FLOOR };
    skirting(b, { ...north, ...inner, to: D.EAST - D.OUTER_WALL, openings: [ENTRANCE] }, [1]);
    skirting(b, { ...south, ...inner, to: D.EAST - D.OUTER_WALL, openings: [MARSH_WINDOW] }, [-1]);
    skirting(b, { ...west, base: D.FLOOR }, [1]);
    skirting(b, { ...east, base: D.FLOOR }, [-1]);
  });
}

function glazedLeaf(b: Builder, hinge: number, sense: 1 | -1): void {
  const low = D.FLOOR + 0.01;
  const high = ENTRANCE.head - 0.05;
  const [z0, z1] = [D.OUTER_WALL, D.OUTER_WALL + 0.9];
  const x1 = hinge + sense * 0.05;
  b.box('Oak joinery', [hinge, low, z0], [x1, high, z0 + 0.09]);
  b.box('Oak joinery', [hinge, low, z1 - 0.09], [x1, high, z1]);
  b.box('Oak joinery', [hinge, low, z0 + 0.09], [x1, low + 0.16, z1 - 0.09]);
  b.box('Oak joinery', [hinge, high - 0.09, z0 + 0.09], [x1, high, z1 - 0.09]);
  const x = hinge + sense * 0.025;
  b.face('Glass', [
    [x, low + 0.16, z0 + 0.09],
    [x, high - 0.09, z0 + 0.09],
    [x, high - 0.09, z1 - 0.09],
    [x, low + 0.16, z1 - 0.09],
  ]);
  b.box('Brass', [hinge - sense * 0.02, low + 0.8, z1 - 0.06], [hinge - sense * 0.045, low + 1.4, z1 - 0.03]);
}

/** The triangle of a wall above the eaves, up to the roof. */
function gable(b: Builder, at: number, thickness: number): void {
  const [x0, x1] = [at - thickness / 2, at + thickness / 2];
  const [south, ridge]: [Point, Point] = [
    [x0, D.EAVES, D.SOUTH],
    [x0, D.RIDGE, D.RIDGE_LINE],
  ];
  b.face('Lime plaster', [[x0, D.EAVES, 0], south, ridge]);
  b.face('Lime plaster', [
    [x1, D.EAVES, D.SOUTH],
    [x1, D.EAVES, 0],
    [x1, D.RIDGE, D.RIDGE_LINE],
  ]);
}

/** Walls between the rooms, with their doors standing open. */
function innerWalls(b: Builder): void {
  const inner = { thickness: D.INNER_WALL, base: D.FLOOR } as const;
  const span = { from: D.OUTER_WALL, to: D.SOUTH - D.OUTER_WALL } as const;
  const readingDoor = doorAt(1.5);
  const workshopDoor = doorAt(10.65);
  const hallWest: WallRun = {
    ...inner,
    ...span,
    along: 'z',
    at: D.HALL_WEST,
    top: D.EAVES,
    openings: [readingDoor, workshopDoor],
  };
  const cafeDoor = doorAt(1.7);
  const galleryDoor: Opening = { from: 8, to: 9.4, sill: D.FLOOR, head: D.FLOOR + 2.4 };
  const split = D.DECK - D.DECK_THICKNESS;
  const hallEast: WallRun = {
    ...inner,
    ...span,
    along: 'z',
    at: D.HALL_EAST,
    top: split,
    openings: [cafeDoor, galleryDoor],
  };
  const deckPortal: Opening = { from: D.BRIDGE.north, to: D.BRIDGE.south, sill: D.DECK, head: D.DECK + 2.2 };
  const between: WallRun = {
    ...inner,
    along: 'x',
    at: D.WORKSHOP_NORTH,
    from: D.OUTER_WALL,
    to: D.HALL_WEST - D.INNER_WALL / 2,
    top: D.LOW_CEILING,
  };
  const passage = doorAt(19.2);
  const cafeSouth: WallRun = {
    ...inner,
    along: 'x',
    at: D.GALLERY_NORTH,
    from: D.HALL_EAST + D.INNER_WALL / 2,
    to: D.EAST - D.OUTER_WALL,
    top: split,
    openings: [passage],
  };
  b.within('Building / Inner walls', () => {
    wall(b, hallWest);
    wall(b, hallEast);
    wall(b, { ...hallEast, base: split, top: D.EAVES, openings: [deckPortal] });
    wall(b, between);
    wall(b, { ...cafeSouth, material: 'Plaster, tide blue' });
    for (const at of [D.HALL_WEST, D.HALL_EAST]) gable(b, at, D.INNER_WALL);
  });
  b.within('Building / Doors', () => {
    door(b, hallWest, readingDoor, { hinge: 'from', swing: -1, open: 1.45 });
    door(b, hallWest, workshopDoor, { hinge: 'to', swing: -1, open: 1.45 });
    door(b, hallEast, cafeDoor, { hinge: 'from', swing: 1, open: 1.5 });
    door(b, hallEast, galleryDoor);
    door(b, cafeSouth, passage, { hinge: 'to', swing: -1, open: 1.5 });
    door(b, { ...hallEast, base: D.DECK }, deckPortal);
  });
  b.within('Building / Skirting', () => {
    for (const run of [hallWest, hallEast, between, cafeSouth]) skirting(b, run, [1, -1]);
  });
}

const BOARDS: readonly MaterialName[] = ['Oak board, light', 'Oak board, mid', 'Oak board, dark', 'Oak board, mid'];

/** Boards laid in rows along x, with random joints and tones. */
export function boards(
  b: Builder,
  area: { x0: number; x1: number; z0: number; z1: number; y: number },
  seed: number,
): void {
  const random = seeded(seed);
  const rows = Math.max(1, Math.round((area.z1 - area.z0) / 0.24));
  const depth = (area.z1 - area.z0) / rows;
  for (let row = 0; row < rows; row += 1) {
    const [z0, z1] = [area.z0 + row * depth, area.z0 + (row + 1) * depth];
    let x = area.x0;
    while (x < area.x1 - 1e-6) {
      const first = x === area.x0;
      const wanted = x + (first ? 0.8 + 2 * random() : 2.4 + 0.8 * random());
      const end = wanted > area.x1 - 0.7 ? area.x1 : wanted;
      const material = BOARDS[Math.floor(random() * BOARDS.length)]!;
      b.face(material, [
        [x, area.y, z0],
        [x, area.y, z1],
        [end, area.y, z1],
        [end, area.y, z0],
      ]);
      x = end;
    }
  }
}

function floors(b: Builder): void {
  const x0 = D.OUTER_WALL;
  const x1 = D.EAST - D.OUTER_WALL;
  b.within('Building / Ground floor', () => {
    boards(b, { x0, x1, z0: D.OUTER_WALL, z1: D.SOUTH - D.OUTER_WALL, y: D.FLOOR }, 11);
    // Door sills close the floor through the outer wall.
    b.box('Granite', [ENTRANCE.from, D.FLOOR - 0.06, 0], [ENTRANCE.to, D.FLOOR, D.OUTER_WALL], { bottom: true });
  });
  b.within('Building / Deck floor', () => {
    const under = D.DECK - D.DECK_THICKNESS;
    const slabs = [
      { x0: D.HALL_EAST - D.INNER_WALL / 2, x1, z0: D.OUTER_WALL, z1: D.GALLERY_NORTH + D.INNER_WALL / 2 },
      { x0: D.STAIR.west + D.STAIR.width, x1: D.HALL_EAST - D.INNER_WALL / 2, z0: D.BRIDGE.north, z1: D.BRIDGE.south },
      { x0: D.HALL_WEST + D.INNER_WALL / 2, x1: D.STAIR.west + D.STAIR.width, z0: D.BRIDGE.north, z1: D.BRIDGE.south },
    ];
    slabs.forEach((slab, i) => {
      boards(b, { ...slab, y: D.DECK }, 31 + i);
      b.box('Spruce lining', [slab.x0, under, slab.z0], [slab.x1, D.DECK - 0.002, slab.z1], { top: true });
    });
    for (let z = 0.9; z < D.GALLERY_NORTH - 0.2; z += 0.8)
      b.box('Spruce frame', [D.HALL_EAST + 0.08, under - 0.2, z], [x1, under, z + 0.09], { top: true });
    for (const z of [D.BRIDGE.north + 0.15, D.BRIDGE.south - 0.25])
      b.box('Spruce frame', [D.HALL_WEST + 0.08, under - 0.24, z], [D.HALL_EAST - 0.08, under, z + 0.1], { top: true });
  });
  b.within('Building / Low ceilings', () => {
    for (const [z0, z1] of [
      [D.OUTER_WALL, D.WORKSHOP_NORTH - 0.07],
      [D.WORKSHOP_NORTH + 0.07, D.SOUTH - D.OUTER_WALL],
    ] as const) {
      b.box('Lime plaster', [x0, D.LOW_CEILING, z0], [D.HALL_WEST - 0.07, D.LOW_CEILING + 0.2, z1], { top: true });
      for (let x = 1; x < D.HALL_WEST - 0.3; x += 0.9)
        b.box('Spruce frame', [x, D.LOW_CEILING - 0.18, z0], [x + 0.08, D.LOW_CEILING, z1], { top: true });
    }
  });
}

export function shell(b: Builder): void {
  outerWalls(b);
  innerWalls(b);
  floors(b);
}
