import { afterEach, expect, test } from '@jest/globals';
import { walkOf } from '@eskovan/core/document';
import { CompiledWalk } from '@eskovan/core/move';
import { Footing } from '@eskovan/core/survey';
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useRef } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import {
  exampleDocument,
  exampleRow,
  exampleWalk,
  leaveProject,
  renderInProject,
  shownDocument,
} from '../../testing/studio.tsx';
import { MoveLensCard } from './move-lens-card.tsx';

const nowhere = new Footing(new Float32Array(0));

/** The card as it is while a page is busy: it goes on showing the move that it has shown first. */
function LateCard() {
  const row = useRef(useProject().move[0]!).current;
  const body = walkOf(row.body);
  return <MoveLensCard row={row} body={body} move={new CompiledWalk(body, nowhere)} aspect={16 / 9} />;
}

const body = () => walkOf(shownDocument().move[0]!.body);
const start = () => {
  const walk = exampleWalk([
    [0, 0],
    [4, 0],
  ]);
  renderInProject(<LateCard />, exampleDocument({ move: [exampleRow(20, 'Arrival', walk)] }));
  // Typed a moment ago, and not shown yet.
  act(() =>
    editBody('move', shownDocument().move[0]!, 'Lens', (now) => ({ ...now, lens: { ...now.lens, focalLengthMm: 50 } })),
  );
};

afterEach(leaveProject);

test('a first lens key has the focal length that was typed, not the one that the card still shows', async () => {
  start();
  await userEvent.click(screen.getByRole('button', { name: 'Change it over time' }));
  expect(body().tracks?.focalLength?.map(({ value }) => value)).toEqual([50]);
});

test('what is changed of a lens leaves alone what was typed before', async () => {
  start();
  await userEvent.click(screen.getByRole('radio', { name: 'At a distance' }));
  expect(body().lens).toMatchObject({ focalLengthMm: 50, focus: 3, fNumber: 2.8 });
});
