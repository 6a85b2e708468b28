import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import { applyTheme, useTheme } from './theme.ts';

function Shown() {
  return <p>{useTheme()}</p>;
}

afterEach(() => {
  cleanup();
  localStorage.clear();
});

test('whoever draws with colours of the theme is told when it changes, and it is kept', () => {
  applyTheme('day');
  render(<Shown />);
  expect(screen.getByText('day')).toBeTruthy();
  act(() => applyTheme('evening'));
  expect(screen.getByText('evening')).toBeTruthy();
  expect(document.documentElement.dataset['theme']).toBe('evening');
  cleanup();
  // Another screen, another day.
  applyTheme();
  render(<Shown />);
  expect(screen.getByText('evening')).toBeTruthy();
});
