import type { Join, Marker, Rate, ShotBody } from '../document/index.ts';
import type { PlannedShot, ReelPlan } from '../reel/index.ts';

/** A shot as other programs get it. */
export interface SentShot {
  id: string;
  name: string;
  planned: PlannedShot;
  body: ShotBody;
  /** What it shows, by name; empty for cards. */
  source: string;
}

/** A reel as other programs get it. */
export interface SentReel {
  name: string;
  rate: Rate;
  shots: readonly SentShot[];
  markers: readonly Marker[];
}

export function sendReel(
  name: string,
  plan: ReelPlan,
  shots: readonly { id: string; name: string; body: ShotBody; source: string }[],
  markers: readonly Marker[] = [],
): SentReel {
  const planned = new Map(plan.shots.map((shot) => [shot.id, shot]));
  const sent = shots.flatMap((shot) => {
    const its = planned.get(shot.id);
    return its ? [{ ...shot, planned: its }] : [];
  });
  return { name, rate: plan.rate, shots: sent, markers };
}

/** A shot as a file has it, ours or another program's. */
export interface BroughtShot {
  name: string;
  /** Ours, where the file carries it. */
  id: string | null;
  /** Frames, those that it shares with its neighbours included. */
  frames: number;
  /** Frames that it shares with the shot before it. */
  overlap: number;
  join: Join['kind'] | null;
  /** Frames of its source, at the file's rate, that its first frame shows. */
  from: number;
  /** Frames of the source in one of the shot; below zero backwards. */
  speed: number;
}

/** Shots in an order that another program made. */
export interface BroughtReel {
  name: string;
  rate: Rate;
  shots: BroughtShot[];
  /** What of the file could not be used, each with its reason. */
  leftOut: string[];
}

/** The frame of its source that the first frame of a shot shows. */
export const sourceFrame = ({ backwards, from, to }: PlannedShot, rate: Rate): number =>
  ((backwards ? to : from) * rate.num) / rate.den;

/** Frames of the source in one of the shot; below zero backwards. */
export const signedSpeed = ({ backwards, speed }: PlannedShot): number => (backwards ? -speed : speed);
