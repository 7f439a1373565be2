import type { ReachPoint } from '@zonal/core/api';
import {
  CategoryScale,
  Chart,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { lengthWords, percent } from '../../ui/timeWords';
import { t } from '../../texts/outside';

Chart.defaults.font.family = "'B612', 'DejaVu Sans', sans-serif";
Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip);

const Box = styled.div`
  position: relative;
  height: 17rem;
  background: var(--sheet);
  border: 1px solid var(--line);
  padding: 0.6rem;
`;

interface SpreadChartProps {
  /** What is shown, in words. */
  label: string;
  expected: readonly ReachPoint[];
  happened: readonly ReachPoint[];
}

const colourOf = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** What was expected of a revision, dashed, and what happened, drawn through. */
export default function SpreadChart({ label, expected, happened }: SpreadChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart | null>(null);
  const points = expected.length ? expected : happened;
  const said = JSON.stringify([points.map((p) => p.after), expected, happened]);
  useEffect(() => {
    const draw = () => {
      const [lengths, before, after] = JSON.parse(said) as [number[], ReachPoint[], ReachPoint[]];
      const [ink, faded, hair] = [colourOf('--ink'), colourOf('--faded'), colourOf('--hair')];
      const share = (list: readonly ReachPoint[]) => list.map((p) => Math.round(p.share * 1000) / 10);
      const line = { borderColor: ink, pointRadius: 2, pointBackgroundColor: ink };
      chart.current?.destroy();
      chart.current = new Chart(canvas.current!, {
        type: 'line',
        data: {
          labels: lengths.map((l) => (l ? lengthWords(l) : t('atOnce'))),
          datasets: [
            {
              ...line,
              label: 'expected',
              data: share(before),
              borderDash: [5, 4],
              borderWidth: 1.5,
              pointRadius: 0,
            },
            { ...line, label: 'happened', data: share(after), borderWidth: 2.5, stepped: 'before' },
          ],
        },
        options: {
          animation: false,
          responsive: true,
          maintainAspectRatio: false,
          interaction: { mode: 'index', intersect: false },
          plugins: {
            tooltip: {
              callbacks: { label: (t) => `${t.dataset.label ?? ''}: ${percent(t.parsed.y! / 100)}` },
            },
          },
          scales: {
            x: { ticks: { color: faded, maxRotation: 0, autoSkipPadding: 12 }, grid: { color: hair } },
            y: {
              min: 0,
              max: 100,
              ticks: { color: faded, stepSize: 25, callback: (v) => `${v} %` },
              grid: { color: hair },
            },
          },
        },
      });
    };
    draw();
    // Its colours are those of the theme.
    const themed = new MutationObserver(draw);
    themed.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
    return () => {
      themed.disconnect();
      chart.current?.destroy();
      chart.current = null;
    };
  }, [said]);
  return (
    <Box>
      <canvas ref={canvas} role="img" aria-label={label} />
    </Box>
  );
}
