import { useEffect, useRef } from 'react';
import uPlot from 'uplot';
import { laneColours } from './lane-colours';
import type { BenchData } from '../../../engine/protocol/protocol';

/** A live plot: over the last seconds for single samples, over the samples otherwise. */
export default function LanePlot({ data }: { data: BenchData }) {
  const box = useRef<HTMLDivElement>(null);
  const plot = useRef<{ chart: uPlot; key: string } | null>(null);
  const past = useRef<{ node: string; time: number[]; values: number[][] }>({
    node: '',
    time: [],
    values: [],
  });
  useEffect(() => {
    const element = box.current!;
    const many = data.count > 1;
    const key = `${data.node} ${many} ${data.lanes.map((l) => l.name).join(' ')}`;
    if (past.current.node !== key) past.current = { node: key, time: [], values: data.lanes.map(() => []) };
    if (!plot.current || plot.current.key !== key) {
      plot.current?.chart.destroy();
      const grid = { stroke: 'rgb(128 118 105 / 0.18)', width: 1 };
      const axis = { stroke: '#8d8375', grid, ticks: grid, font: '10px JetBrains Mono Variable', size: 40 };
      const chart = new uPlot(
        {
          width: Math.max(100, element.clientWidth),
          height: Math.max(60, element.clientHeight),
          legend: { show: false },
          cursor: { show: true },
          scales: { x: { time: false } },
          axes: [{ ...axis, size: 22 }, axis],
          series: [
            {},
            ...data.lanes.map((lane, k) => ({
              label: lane.name,
              stroke: laneColours[k % laneColours.length],
              width: 1.5,
              points: { show: many && data.count < 65, size: 4 },
            })),
          ],
        },
        [[], ...data.lanes.map(() => [])],
        element,
      );
      plot.current = { chart, key };
    }
    const { chart } = plot.current;
    if (many)
      chart.setData([
        Array.from({ length: data.lanes[0]?.samples.length ?? 0 }, (_, i) => i),
        ...data.lanes.map((l) => l.samples),
      ] as uPlot.AlignedData);
    else {
      const { time, values } = past.current;
      time.push(performance.now() / 1000);
      data.lanes.forEach((lane, k) => values[k].push(lane.samples[0] ?? 0));
      while (time.length > 2 && time[time.length - 1] - time[0] > 8) {
        time.shift();
        for (const list of values) list.shift();
      }
      const now = time[time.length - 1];
      chart.setData([time.map((t) => t - now), ...values] as uPlot.AlignedData);
    }
    const [width, height] = [element.clientWidth, element.clientHeight];
    if (chart.width !== width || chart.height !== height) chart.setSize({ width, height });
  }, [data]);
  useEffect(() => () => plot.current?.chart.destroy(), []);
  return <div ref={box} className="min-w-0 grow overflow-hidden" data-testid="plot" />;
}
