import { usualSlope, type Contour, type Relief, type SurveyedStorey } from '@eskovan/core/survey';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useTheme } from '../kit/theme.ts';
import { reliefImage, rgbOf } from './relief-image.ts';
import type { Viewport } from './viewport.ts';

interface LineWorkProps {
  storey: SurveyedStorey | null;
  /** Of the landscape around. */
  contours?: readonly Contour[];
  relief?: Relief | null;
  view: Viewport;
  width: number;
  height: number;
  /** Shows where a walker gets to. */
  walkway?: boolean;
  /** Tints the landscape by how steep it is, instead of shading it. */
  slopes?: boolean;
}

const NONE: readonly Contour[] = [];

/** Longest piece of drawing without a pause, milliseconds: a heavy plan must not hold up the hand. */
const SLICE = 12;
/** Lines drawn between two looks at the clock. */
const BATCH = 400;

/** Contours nearer to each other than this are a grey patch, pixels: then only every fifth one is drawn. */
const LEAST_SPACING = 5;

/** The contours that can be told apart at a scale. @param slope how steep the land mostly is, rise over run */
function readable(contours: readonly Contour[], slope: number, scale: number): readonly Contour[] {
  const [first, second] = contours;
  if (!first || !second || !(slope > 0)) return contours;
  const spacing = ((second.height - first.height) / slope) * scale;
  if (spacing >= LEAST_SPACING) return contours;
  const strong = contours.filter(({ index }) => index);
  return strong.length > 0 ? strong : contours;
}

/** The drawn plan, on a canvas of its own: it is redrawn when it moves, not when something on it does. */
export function LineWork({
  storey,
  contours = NONE,
  relief = null,
  view,
  width,
  height,
  walkway = false,
  slopes = false,
}: LineWorkProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  // A browser that starts its graphics again has forgotten what was drawn.
  const [forgotten, setForgotten] = useState(0);
  useEffect(() => {
    const element = canvas.current!;
    const again = () => setForgotten((times) => times + 1);
    element.addEventListener('contextrestored', again);
    return () => element.removeEventListener('contextrestored', again);
  }, []);
  // The shades of the land come a moment after its lines.
  const shaded = useDeferredValue(relief, null);
  const slope = useMemo(() => (shaded ? usualSlope(shaded) : Number.NaN), [shaded]);
  const shown = useMemo(() => readable(contours, slope, view.scale), [contours, slope, view.scale]);
  const land = useMemo(() => {
    if (!shaded) return null;
    const style = getComputedStyle(document.documentElement);
    const color = (name: string) => rgbOf(style.getPropertyValue(name));
    return reliefImage(shaded, color('--ink'), color('--raised'), slopes ? color('--rust') : null);
    // The theme decides what the colours are.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [shaded, slopes, theme, forgotten]);
  useEffect(() => {
    const element = canvas.current;
    if (!element || width === 0) return;
    const ratio = window.devicePixelRatio || 1;
    element.width = Math.round(width * ratio);
    element.height = Math.round(height * ratio);
    const context = element.getContext('2d')!;
    const style = getComputedStyle(element);
    const color = (name: string) => style.getPropertyValue(name);
    context.setTransform(
      ratio * view.scale,
      0,
      0,
      ratio * view.scale,
      ratio * (width / 2 - view.x * view.scale),
      ratio * (height / 2 - view.z * view.scale),
    );
    if (!storey) return;
    if (relief && shaded && land) drawLand(context, shaded, land);
    if (walkway) drawWalkway(context, storey.walkway, color('--lagoon'));
    const colors = {
      ink: color('--wall'),
      soft: color('--ink-faint'),
      glass: color('--lagoon'),
      earth: color('--rust'),
      paper: color('--desk'),
    };
    return inSlices(draw(context, storey, shown, view.scale, colors));
    // The theme decides what the colours above are.
  }, [storey, shown, relief, shaded, land, view, width, height, walkway, theme, forgotten]);
  return <canvas ref={canvas} data-testid="plan-lines" aria-hidden className="absolute inset-0 h-full w-full" />;
}

/** Works at once as far as a slice goes, and on in the frames that follow. Returns what stops it. */
function inSlices(steps: Iterator<void>): () => void {
  let frame = 0;
  const go = () => {
    const until = performance.now() + SLICE;
    while (performance.now() < until) if (steps.next().done) return;
    frame = requestAnimationFrame(go);
  };
  go();
  return () => cancelAnimationFrame(frame);
}

function drawLand(context: CanvasRenderingContext2D, relief: Relief, land: CanvasImageSource): void {
  const { x0, z0, cell, columns, rows } = relief;
  context.imageSmoothingQuality = 'high';
  context.drawImage(land, x0 - cell / 2, z0 - cell / 2, columns * cell, rows * cell);
}

interface Colors {
  ink: string;
  soft: string;
  glass: string;
  earth: string;
  paper: string;
}

/** One fill of all triangles, so that their seams do not show. */
function drawWalkway(context: CanvasRenderingContext2D, triangles: readonly number[], color: string): void {
  context.beginPath();
  for (let i = 0; i < triangles.length; i += 6) {
    context.moveTo(triangles[i]!, triangles[i + 1]!);
    context.lineTo(triangles[i + 2]!, triangles[i + 3]!);
    context.lineTo(triangles[i + 4]!, triangles[i + 5]!);
    context.closePath();
  }
  context.globalAlpha = 0.16;
  context.fillStyle = color;
  context.fill();
  context.globalAlpha = 1;
}

function* draw(
  context: CanvasRenderingContext2D,
  storey: SurveyedStorey,
  contours: readonly Contour[],
  scale: number,
  colors: Colors,
): Generator<void> {
  const { cut, openCut, glass, below } = storey.plan;
  context.lineCap = 'round';
  yield* drawContours(context, contours, scale, colors);
  crossVoids(context, storey, scale, colors);
  context.strokeStyle = colors.soft;
  context.globalAlpha = 0.5;
  context.lineWidth = 0.75 / scale;
  yield* lines(context, below);
  context.globalAlpha = 1;
  context.strokeStyle = colors.glass;
  context.lineWidth = 1.25 / scale;
  yield* lines(context, glass);
  context.strokeStyle = colors.ink;
  context.lineWidth = 1.5 / scale;
  yield* lines(context, openCut);
  // What the cut goes through is one fill: walls that were built of pieces have no seams in a drawing.
  context.fillStyle = colors.ink;
  context.lineWidth = 0.6 / scale;
  for (const outlines of cut) {
    context.beginPath();
    for (const loop of outlines) {
      context.moveTo(loop[0]!, loop[1]!);
      for (let i = 2; i < loop.length; i += 2) context.lineTo(loop[i]!, loop[i + 1]!);
      context.closePath();
    }
    context.fill('evenodd');
    context.stroke();
    yield;
  }
}

/** Air over a lower floor is crossed out, as plans do. */
function crossVoids(
  context: CanvasRenderingContext2D,
  { voids }: SurveyedStorey,
  scale: number,
  { soft }: Colors,
): void {
  context.strokeStyle = soft;
  context.lineWidth = 0.75 / scale;
  context.setLineDash([6 / scale, 4 / scale]);
  context.beginPath();
  for (const { extent } of voids) {
    if (!extent) continue;
    const [x0, z0, x1, z1] = extent;
    context.moveTo(x0, z0);
    context.lineTo(x1, z1);
    context.moveTo(x0, z1);
    context.lineTo(x1, z0);
  }
  context.stroke();
  context.setLineDash([]);
}

/** Heights of the land: thin brown lines, every fifth one stronger with its height on it. */
function* drawContours(
  context: CanvasRenderingContext2D,
  contours: readonly Contour[],
  scale: number,
  { earth, paper }: Colors,
): Generator<void> {
  context.strokeStyle = earth;
  for (const { index, lines: pieces } of contours) {
    context.globalAlpha = index ? 0.75 : 0.4;
    context.lineWidth = (index ? 1.3 : 0.8) / scale;
    yield* lines(context, pieces);
  }
  context.globalAlpha = 1;
  context.font = `${11 / scale}px ${getComputedStyle(context.canvas).getPropertyValue('--font-mono')}`;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  context.lineJoin = 'round';
  const strong = contours.filter(({ index }) => index);
  for (const { height, lines: pieces } of strong.length > 0 ? strong : contours) {
    // Somewhere along it: a third of the way, so that the heights of neighbours do not stand in a row.
    const at = 4 * Math.floor(pieces.length / 12);
    const [x, z] = [(pieces[at]! + pieces[at + 2]!) / 2, (pieces[at + 1]! + pieces[at + 3]!) / 2];
    const words = Number.isInteger(height) ? String(height) : height.toFixed(1);
    context.strokeStyle = paper;
    context.lineWidth = 4 / scale;
    context.strokeText(words, x, z);
    context.fillStyle = earth;
    context.fillText(words, x, z);
    yield;
  }
}

function* lines(context: CanvasRenderingContext2D, values: readonly number[]): Generator<void> {
  for (let from = 0; from < values.length; from += 4 * BATCH) {
    context.beginPath();
    for (let i = from; i < Math.min(values.length, from + 4 * BATCH); i += 4) {
      context.moveTo(values[i]!, values[i + 1]!);
      context.lineTo(values[i + 2]!, values[i + 3]!);
    }
    context.stroke();
    yield;
  }
}
