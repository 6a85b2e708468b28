import { ownName, type Pose, type Row } from '@eskovan/core/document';
import { middle } from '@eskovan/core/geometry';
import { findCarrier, headingOf, seatAt, seatOf, type CarrierSite } from '@eskovan/core/move';
import { workbench } from '../../desk/workbench.ts';
import type { PickedSurface } from '../../picture/source.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { pressedPart } from '../shared/find-part.tsx';
import { editMove } from './edit-move.ts';

/** Lets a part carry the camera, which sits on it and looks where it goes. */
export function rideOn(row: Row<'move'>, { model, name, bounds }: PartInfo, site: CarrierSite): void {
  workbench.set({ aiming: null, scout: null });
  const carrier = { model, name, centre: middle(bounds) };
  const heading = headingOf(findCarrier(carrier, site)) ?? [0, 0, -1];
  editMove(row, 'ride', `Ride on ${ownName(name)}`, (now) => ({
    ...now,
    carrier,
    ...seatAt('on it', bounds, heading, { model, name }),
  }));
}

/** The same for what was pressed in the picture. */
export async function rideOnPressed(row: Row<'move'>, hit: PickedSurface, site: CarrierSite): Promise<void> {
  workbench.set({ aiming: null });
  const part = await pressedPart(hit);
  if (part) rideOn(row, part, site);
}

/** Lets the camera sit where the free eye is, and look as it does. */
export function reseated(row: Row<'move'>, pose: Pose, site: CarrierSite): void {
  const { time } = workbench.get();
  editMove(row, 'ride', 'Seat', (now) => ({ ...now, ...seatOf(pose, findCarrier(now.carrier, site), time) }));
  workbench.set({ scout: null });
}
