import { z } from 'zod';
import { frameSchema } from './frame.ts';
import { lightChoiceSchema } from './light.ts';
import { fileRefSchema, finite, groupNameSchema, idSchema, rateSchema } from './primitives.ts';

/** No shot is longer, seconds. */
export const LONGEST_SHOT = 3600;

const seconds = finite.min(0.02).max(LONGEST_SHOT);

/** A place in a reel that somebody wants to find again. */
export const markerSchema = z.object({
  id: idSchema,
  /** seconds */
  time: finite.min(0).max(100_000),
  name: z.string().trim().min(1).max(120),
});
export type Marker = z.infer<typeof markerSchema>;

/** What is heard. */
export const soundSchema = z.object({
  file: fileRefSchema,
  fileName: z.string().min(1).max(255),
  /** Where in the file it begins, seconds. */
  from: finite.min(0).max(100_000).default(0),
  /** When in the reel it is heard first, seconds. */
  start: finite.min(0).max(100_000).default(0),
  /** It swells and dies away, seconds. */
  fadeIn: finite.min(0).max(60).default(0),
  fadeOut: finite.min(0).max(60).default(0),
  /** How loud: 1 is as it came. */
  gain: finite.min(0).max(4).default(1),
});
export type Sound = z.infer<typeof soundSchema>;

const promisedObjectSchema = z.object({
  model: idSchema,
  /** Name of the part within its model. */
  name: z.string().min(1).max(2000),
});
export type PromisedObject = z.infer<typeof promisedObjectSchema>;

/** Shots in order, joined: one film. Its shots are rows of their own, so that two people may work on two of them. */
export const reelBodySchema = z.object({
  /** Frames a second; absent: the project's. */
  rate: rateSchema.optional(),
  /** Width over height of its pictures; absent: the project's. */
  frame: frameSchema.optional(),
  /** How long it is meant to become, seconds. */
  wanted: finite.min(0.1).max(36_000).optional(),
  markers: z.array(markerSchema).max(500).optional(),
  /** Names of rooms that it has to show. */
  promised: z.array(z.string().min(1).max(120)).max(200).optional(),
  /** Objects that it has to show: named parts of models. */
  promisedObjects: z.array(promisedObjectSchema).max(200).optional(),
  sound: soundSchema.optional(),
  /** Shown on cards that ask for it. */
  logo: fileRefSchema.optional(),
  /** What parts of the site do by themselves runs through the whole reel, instead of beginning anew with every shot. */
  throughout: z.literal(true).optional(),
  note: z.string().max(4000).optional(),
});
export type ReelBody = z.infer<typeof reelBodySchema>;

/** Ways that the camera of a held view goes, slowly. */
export const driftWaySchema = z.enum(['in', 'out', 'left', 'right', 'up', 'down']);
export type DriftWay = z.infer<typeof driftWaySchema>;

/** Which way the camera of a held view goes meanwhile, how far, and how far it is gone when the shot begins; metres. */
export const driftSchema = z.object({
  way: driftWaySchema,
  distance: finite.min(0).max(1000),
  gone: finite.min(-1000).max(1000).optional(),
});
export type Drift = z.infer<typeof driftSchema>;

/** A card with words on it. */
export const titleSchema = z.object({
  heading: z.string().max(200),
  /** Below the heading; lines are kept. */
  text: z.string().max(1000).default(''),
  ground: z.enum(['paper', 'ink', 'black']).default('paper'),
  align: z.enum(['left', 'middle']).default('middle'),
  logo: z.literal(true).optional(),
});
export type Title = z.infer<typeof titleSchema>;

/** From where to where in its source a shot goes, seconds; without an end: to the source's end. */
const stretch = {
  from: finite.min(0).max(100_000).default(0),
  to: finite.min(0).max(100_000).optional(),
  backwards: z.literal(true).optional(),
};
const file = { file: fileRefSchema, fileName: z.string().min(1).max(255) };

/** What a shot shows. Moves and views are referred to: who changes them changes it. */
export const shotUseSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('move'), move: idSchema, ...stretch }),
  z.object({
    kind: z.literal('view'),
    view: idSchema,
    drift: driftSchema.optional(),
  }),
  z.object({ kind: z.literal('title'), title: titleSchema }),
  z.object({ kind: z.literal('picture'), ...file }),
  /** Moving pictures that somebody brought; as long as the file is, seconds. Their sound is heard, unless `gain` says otherwise. */
  z.object({
    kind: z.literal('clip'),
    ...file,
    duration: finite.min(0.001).max(100_000),
    gain: finite.min(0).max(4).optional(),
    ...stretch,
  }),
]);
export type ShotUse = z.infer<typeof shotUseSchema>;

/** Does it go through a stretch of something that has a time of its own? Everything else holds as long as one likes. */
export const hasStretch = (use: ShotUse): use is Extract<ShotUse, { kind: 'move' | 'clip' }> =>
  use.kind === 'move' || use.kind === 'clip';

/** How a shot follows on the one before it. Absent: a cut. */
export const joinSchema = z.object({
  /** blend: one continuous camera; dissolve: pictures over each other; dip: to a colour and back. */
  kind: z.enum(['blend', 'dissolve', 'dip']),
  seconds: finite.min(0.02).max(60),
  /** What a dip goes to. */
  to: z.enum(['paper', 'black']).optional(),
});
export type Join = z.infer<typeof joinSchema>;

/** Words over the pictures of a shot. */
export const captionSchema = z.object({
  text: z.string().trim().min(1).max(300),
  place: z.enum(['lower third', 'foot', 'head']).default('lower third'),
});
export type Caption = z.infer<typeof captionSchema>;

/** A use of a move, a view, a card or a picture in a reel. */
export const shotBodySchema = z.object({
  reel: idSchema,
  use: shotUseSchema,
  /** How long it is, seconds; absent: as long as the pace of its move makes it. Whole frames come of it by rounding. */
  seconds: seconds.optional(),
  /** It keeps its length when a reel is fitted. */
  keeps: z.literal(true).optional(),
  join: joinSchema.optional(),
  /** The light it is seen in; absent: that of its move or view. */
  light: lightChoiceSchema,
  caption: captionSchema.optional(),
  /** Where a narrower cut-out lies in its picture: −1 at the left edge, 1 at the right; absent: where its subject is. */
  aside: finite.min(-1).max(1).optional(),
  /** Shots that say the same name of a group are moved together. */
  group: groupNameSchema.optional(),
  /** The number of its view stands in its pictures. */
  numbered: z.literal(true).optional(),
  note: z.string().max(2000).optional(),
});
export type ShotBody = z.infer<typeof shotBodySchema>;

/** A still that nobody gave a length is held so long, seconds (common practice, no source). */
export const FIRST_HOLD = 4;
