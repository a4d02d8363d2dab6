import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { mostChanges, type RoundMeasure } from '../../core/preflight/round-check';

const axis = { stroke: 'var(--quiet)', fontSize: 11, tickLine: false, axisLine: false } as const;

const seconds = (value: number): string => `${Number(value.toFixed(1))} s`;

/** Changes of light over the time that was looked at, with what is allowed: where a line is above it, the frames fail. */
export default function StripChart({ measure }: { measure: RoundMeasure }) {
  const { strip, seconds: length } = measure;
  const points = strip.general.map((general, k) => ({
    at: (k / Math.max(1, strip.general.length - 1)) * length,
    general,
    red: strip.red[k],
    light: strip.light[k] * mostChanges,
  }));
  const most = Math.max(mostChanges + 2, ...strip.general, ...strip.red);
  return (
    <ResponsiveContainer width="100%" height={150}>
      <LineChart data={points} margin={{ top: 8, right: 12, bottom: 0, left: -18 }}>
        <CartesianGrid stroke="var(--edge)" vertical={false} />
        <XAxis dataKey="at" type="number" domain={[0, length]} tickFormatter={seconds} {...axis} />
        <YAxis domain={[0, most]} allowDecimals={false} {...axis} />
        <Tooltip
          isAnimationActive={false}
          labelFormatter={(at) => seconds(Number(at))}
          formatter={(value, name) =>
            name === 'Brightness' ? `${Math.round((100 * Number(value)) / mostChanges)} %` : String(value)
          }
          contentStyle={{
            background: 'var(--color-base-200)',
            border: '1px solid var(--edge)',
            fontSize: 11,
          }}
        />
        <ReferenceLine
          y={mostChanges}
          stroke="var(--color-error)"
          strokeDasharray="4 3"
          label={{ value: 'allowed', position: 'insideTopRight', fontSize: 11, fill: 'var(--color-error)' }}
        />
        {(
          [
            ['light', 'Brightness', 'var(--quiet)', 1],
            ['general', 'Changes of light', 'var(--color-primary)', 1.5],
            ['red', 'Changes of red', 'var(--color-error)', 1.5],
          ] as const
        ).map(([key, name, stroke, strokeWidth]) => (
          <Line
            key={key}
            dataKey={key}
            name={name}
            stroke={stroke}
            strokeWidth={strokeWidth}
            strokeOpacity={key === 'light' ? 0.5 : 1}
            dot={false}
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
