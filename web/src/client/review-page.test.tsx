import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { uuid } from '../testing/studio.tsx';
import { ReviewPage } from './review-page.tsx';

const sha = (n: number) => String(n).padStart(64, '0');
const take = (n: number, name: string, kind: 'video' | 'still') => ({
  id: uuid(n),
  name,
  kind,
  width: 1280,
  height: 720,
  seconds: kind === 'video' ? 12.4 : null,
  file: sha(n),
  mediaType: kind === 'video' ? 'video/mp4' : 'image/png',
  poster: sha(n + 100),
});
const page = {
  project: 'Ternholm Observatory',
  round: 'Round 2',
  takes: [take(1, 'Arrival', 'video'), take(2, 'Hall', 'still')],
  views: [{ id: uuid(5), name: 'Tide gallery', picture: sha(5) }],
};

function serve(status: number, json: unknown): string[] {
  const asked: string[] = [];
  globalThis.fetch = ((path: string) => {
    asked.push(path);
    return Promise.resolve({ ok: status < 400, status, statusText: '', json: () => Promise.resolve(json) } as Response);
  }) as typeof fetch;
  return asked;
}
afterEach(cleanup);

describe('the client’s page', () => {
  test('shows the project, its film and its views, all through the link', async () => {
    const asked = serve(200, page);
    render(<ReviewPage token="T" />);
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('Ternholm Observatory');
    const video = screen.getByLabelText<HTMLVideoElement>('Arrival', { selector: 'video' });
    expect(video.getAttribute('src')).toBe(`/api/review/T/files/${sha(1)}`);
    expect(screen.getByText('12.4 s')).toBeTruthy();
    expect(screen.getByAltText('Tide gallery').getAttribute('src')).toBe(`/api/review/T/files/${sha(5)}`);
    expect(asked).toEqual(['/api/review/T']);
    expect(document.title).toBe('Ternholm Observatory');
  });

  test('another take can be chosen', async () => {
    serve(200, page);
    render(<ReviewPage token="T" />);
    await userEvent.click(await screen.findByRole('button', { name: 'Hall' }));
    expect(screen.getByAltText('Hall').getAttribute('src')).toBe(`/api/review/T/files/${sha(2)}`);
  });

  test('says when the link has ended', async () => {
    serve(410, { code: 'ended', message: 'This link has ended. Ask the studio for a new one.' });
    render(<ReviewPage token="T" />);
    expect(await screen.findByText(/Ask the studio for a new one/)).toBeTruthy();
  });

  test('an answer that is not what was agreed is an error, not a broken page', async () => {
    serve(200, { project: 'X' });
    render(<ReviewPage token="T" />);
    expect(await screen.findByRole('heading', { name: 'This page cannot be shown' })).toBeTruthy();
  });
});
