import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { Seen } from './seen.ts';

interface SeenChartProps {
  seen: readonly Seen[];
  /** Promised and never seen. */
  missing: readonly string[];
  /** Of the reel, seconds. */
  duration: number;
}

/** How long rooms and objects are seen, and how long the camera is in rooms: as bars, and as a table. */
export function SeenChart({ seen: things, missing, duration }: SeenChartProps) {
  const rows = things.map(({ name, seen, inside }) => ({
    name,
    seen: Number(seen.toFixed(2)),
    ...(inside !== null && { inside: Number(inside.toFixed(2)) }),
  }));
  return (
    <div className="grid gap-3">
      <div style={{ height: Math.max(140, 34 * rows.length + 60) }} aria-hidden>
        <ResponsiveContainer width="100%" height="100%">
          <BarChart data={rows} layout="vertical" margin={{ left: 30, right: 20 }} barGap={1}>
            <CartesianGrid horizontal={false} stroke="var(--rule)" />
            <XAxis type="number" unit=" s" stroke="var(--ink-faint)" fontSize={11} />
            <YAxis type="category" dataKey="name" width={110} stroke="var(--ink-soft)" fontSize={12} />
            <Tooltip
              cursor={{ fill: 'var(--rule)', fillOpacity: 0.3 }}
              contentStyle={{ background: 'var(--raised)', border: '1px solid var(--rule)', borderRadius: 8 }}
            />
            <Legend />
            <Bar dataKey="seen" name="in the picture" fill="var(--lagoon)" isAnimationActive={false} radius={3} />
            <Bar dataKey="inside" name="camera in it" fill="var(--ochre)" isAnimationActive={false} radius={3} />
          </BarChart>
        </ResponsiveContainer>
      </div>
      <table className="w-full text-left">
        <caption className="sr-only">How long rooms and objects are seen</caption>
        <thead>
          <tr className="border-b border-rule text-ink-faint">
            <th className="py-1 font-medium">Room or object</th>
            <th className="py-1 text-right font-medium">In the picture</th>
            <th className="py-1 text-right font-medium">Of the reel</th>
            <th className="py-1 text-right font-medium">Camera in it</th>
            <th className="py-1 text-right font-medium">First seen</th>
          </tr>
        </thead>
        <tbody className="font-mono">
          {things.map(({ key, name, where, kind, seen, inside, spans }) => (
            <tr key={key} className="border-b border-rule/60">
              <td className="py-1 font-sans">{kind === 'room' && where ? `${name}, ${where}` : name}</td>
              <td className="py-1 text-right">{seen.toFixed(1)} s</td>
              <td className="py-1 text-right">{((100 * seen) / Math.max(duration, 1e-6)).toFixed(0)} %</td>
              <td className="py-1 text-right">{inside === null ? '–' : `${inside.toFixed(1)} s`}</td>
              <td className="py-1 text-right">{spans[0]![0].toFixed(1)} s</td>
            </tr>
          ))}
          {missing.map((name) => (
            <tr key={name} className="border-b border-rule/60 text-madder">
              <td className="py-1 font-sans">{name}</td>
              <td className="py-1 text-right" colSpan={4}>
                promised, never seen
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
