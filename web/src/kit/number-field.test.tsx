import { afterEach, describe, expect, test } from '@jest/globals';
import { MILLIMETRES } from '@eskovan/core/document';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Length, LengthUnitProvider } from './length-unit.tsx';
import { readNumber } from './number-entry.ts';
import { NumberField } from './number-field.tsx';

describe('reading numbers', () => {
  test.each([
    ['1.5', 'length', 1.5],
    ['1,5', 'length', 1.5],
    ['1.5m', 'length', 1.5],
    ['150 cm', 'length', 1.5],
    ['5\'6"', 'length', 1.6764],
    ['2 ft', 'length', 0.6096],
    ['24mm', 'millimetre', 24],
    ['2.4 cm', 'millimetre', 24],
    ['3s', 'time', 3],
    ['72f', 'time', 3],
    ['1 min + 30 s', 'time', 90],
    ['4.32 km/h', 'speed', 1.2],
    ['(1 + 2) * 3 / 2', 'plain', 4.5],
    ['-2 − -3', 'plain', 1],
    ['1.2m + 35cm', 'length', 1.55],
    ['90°', 'angle', 90],
  ] as const)('%s (%s) is %d', (text, measure, expected) => {
    expect(readNumber(text, measure, 24)).toBeCloseTo(expected, 6);
  });

  test.each(['', 'fast', '1 +', '(1', '1 2', '1/0', '5 kg', '--', 'NaN', 'Infinity', 'alert(1)'])(
    '“%s” is no number',
    (text) => {
      expect(readNumber(text, 'length')).toBeNull();
    },
  );
});

function Field({ start }: { start: number }) {
  const [value, setValue] = useState(start);
  return (
    <NumberField
      label="Eye height"
      unit="m"
      measure="length"
      value={value}
      step={0.05}
      min={0.3}
      max={3}
      onChange={setValue}
    />
  );
}

describe('the field', () => {
  afterEach(cleanup);
  const field = () => screen.getByLabelText<HTMLInputElement>('Eye height, m');

  test('takes units, keeps within its limits, and steps with the arrows', async () => {
    const user = userEvent.setup();
    render(<Field start={1.6} />);
    await user.clear(field());
    await user.type(field(), '175cm{Enter}');
    expect(field().value).toBe('1.75');
    await user.type(field(), '{ArrowUp}');
    expect(field().value).toBe('1.80');
    await user.clear(field());
    await user.type(field(), '99{Enter}');
    expect(field().value).toBe('3.00');
  });

  test('where the site is a product, lengths are millimetres, steps are fine, and speeds follow', async () => {
    const user = userEvent.setup();
    const kept: number[] = [];
    render(
      <LengthUnitProvider value={MILLIMETRES}>
        <NumberField label="Height" unit="m" measure="length" value={0.0234} onChange={(value) => kept.push(value)} />
        <NumberField label="Speed" unit="m/s" measure="speed" value={0.01} onChange={(value) => kept.push(value)} />
        <Length metres={[0.0214, 0.5]} between=" × " />
        <Length metres={0.02} per="s" />
      </LengthUnitProvider>,
    );
    const height = screen.getByLabelText<HTMLInputElement>('Height, mm');
    const speed = screen.getByLabelText<HTMLInputElement>('Speed, mm/s');
    expect([height.value, speed.value]).toEqual(['23.4', '10.0']);
    for (const [typed, into] of [
      ['12 + 3', height],
      ['2.5cm', height],
      ["1'", height],
      ['5', speed],
      ['0.02 m/s', speed],
    ] as const) {
      await user.clear(into);
      await user.type(into, `${typed}{Enter}`);
    }
    expect(kept).toEqual([0.015, 0.025, 0.3048, 0.005, 0.02].map((value) => expect.closeTo(value, 9) as unknown));
    await user.type(height, '{ArrowUp}');
    expect(kept.at(-1)).toBeCloseTo(0.3058, 9);
    expect(screen.getByText('21.4 × 500.0')).toBeTruthy();
    expect(screen.getByText('mm/s', { selector: '.ml-1' })).toBeTruthy();
  });

  test('says when it cannot read, keeps what was typed, and gives it back on Escape', async () => {
    const user = userEvent.setup();
    render(<Field start={1.6} />);
    await user.clear(field());
    await user.type(field(), 'tall{Enter}');
    expect(field().getAttribute('aria-invalid')).toBe('true');
    expect(field().value).toBe('tall');
    await user.type(field(), '{Escape}');
    expect(field().value).toBe('1.60');
  });
});

test('on a page that comes late, steps add up, and none of them is seen again as it comes', async () => {
  const user = userEvent.setup();
  const late: (() => void)[] = [];
  const LateField = () => {
    const [value, setValue] = useState(1);
    return <NumberField label="Late" value={value} step={0.5} onChange={(next) => late.push(() => setValue(next))} />;
  };
  render(<LateField />);
  const field = screen.getByLabelText<HTMLInputElement>('Late');
  await user.click(field);
  await user.keyboard('{ArrowUp}{ArrowUp}{ArrowUp}{ArrowDown}');
  expect(field.value).toBe('2.00');
  expect(late).toHaveLength(4);
  // 1.5, 2, 2.5 and 2 again.
  for (const comes of late) {
    act(comes);
    expect(field.value).toBe('2.00');
  }
});

test('what the page does not take is not shown for long', async () => {
  const user = userEvent.setup();
  render(<NumberField label="Refused" value={1} onChange={() => undefined} />);
  const field = screen.getByLabelText<HTMLInputElement>('Refused');
  await user.click(field);
  await user.keyboard('{ArrowUp}');
  expect(field.value).toBe('1.10');
  await waitFor(() => expect(field.value).toBe('1.00'), { timeout: 2000 });
});
