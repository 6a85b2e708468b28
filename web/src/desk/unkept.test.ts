import { beforeEach, describe, expect, test } from '@jest/globals';
import type { Pose } from '@eskovan/core/document';
import { uuid } from '../testing/studio.tsx';
import { holdPose, letGo, openUnkept, useUnkept } from './unkept.ts';

const project = uuid(1);
const pose = (x: number): Pose => ({ position: [x, 1.6, 0], orientation: [0, 0, 0, 1] });
const held = () => useUnkept.getState().list.map(({ move, time, pose: { position } }) => [move, time, position[0]]);

describe('poses that are held until they are kept', () => {
  beforeEach(() => {
    localStorage.clear();
    useUnkept.setState({ projectId: null, list: [] });
    openUnkept(project);
  });

  test('one a move and instant: a newer one takes its place, others stay', () => {
    holdPose(project, uuid(2), 1, pose(1));
    holdPose(project, uuid(2), 2, pose(2));
    holdPose(project, uuid(3), 1, pose(3));
    holdPose(project, uuid(2), 1, pose(4));
    expect(held()).toEqual([
      [uuid(2), 1, 4],
      [uuid(3), 1, 3],
      [uuid(2), 2, 2],
    ]);
    letGo(project, uuid(2), 1);
    expect(held()).toHaveLength(2);
  });

  test('they are there after a reload, each project its own; what is damaged is left out', () => {
    holdPose(project, uuid(2), 1, pose(1));
    useUnkept.setState({ projectId: null, list: [] });
    openUnkept(uuid(9));
    expect(held()).toEqual([]);
    openUnkept(project);
    expect(held()).toEqual([[uuid(2), 1, 1]]);
    localStorage.setItem(`eskovan-unkept-${uuid(8)}`, '[{"move":"nobody"}]');
    openUnkept(uuid(8));
    expect(held()).toEqual([]);
  });
});
