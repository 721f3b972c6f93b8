import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import { digitsOf } from '@crow/core/money';
import { Group } from '@crow/core/shelf/addUp';
import { money } from '../../parts/words';
import { useShownScheme } from '../../parts/scheme';
import { monthName } from '../../parts/months';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** What papers of one currency add up to by month, as bars; what they say is told in words as well, by the list beside it. */
export default function MonthChart({ months, currency }: { months: readonly Group[]; currency: string | null }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scheme = useShownScheme();
  useEffect(() => {
    const look = getComputedStyle(document.documentElement);
    const colour = (name: string) => look.getPropertyValue(name);
    const every = everyMonth(months.flatMap(({ key }) => key ?? []));
    const units = (month: string) =>
      months.find(({ key }) => key === month)?.sums.find((sum) => sum.currency === currency)?.units ?? 0;
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    const chart = new Chart(canvas.current!, {
      type: 'bar',
      data: {
        labels: every,
        datasets: [
          { data: every.map((month) => units(month) / 10 ** digitsOf(currency)), backgroundColor: colour('--accent') },
        ],
      },
      options: {
        animation: still ? false : { duration: 150 },
        maintainAspectRatio: false,
        scales: {
          x: {
            grid: { display: false },
            ticks: {
              color: colour('--quiet'),
              maxRotation: 0,
              autoSkipPadding: 8,
              callback: (at) => short(every[Number(at)]),
            },
          },
          y: { grid: { color: colour('--rule') }, ticks: { color: colour('--quiet'), maxTicksLimit: 5 } },
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            displayColors: false,
            callbacks: {
              title: ([{ dataIndex }]) => monthName(every[dataIndex]),
              label: ({ dataIndex }) => money({ units: units(every[dataIndex]), currency }),
            },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [months, currency, scheme]);
  return (
    <div className="h-28">
      <canvas ref={canvas} role="img" aria-label={`By month, from ${months[0]?.key} to ${months.at(-1)?.key}`} />
    </div>
  );
}

const short = (month: string) => `${monthName(month).slice(0, 3)} ${month.slice(2, 4)}`;

/** From the first to the last month, those between them included; ISO 8601. */
function everyMonth(months: readonly string[]): string[] {
  const all: string[] = [];
  const [first, last] = [months[0], months.at(-1)];
  for (let month = first; month && month <= last!; month = next(month)) all.push(month);
  return all;
}

function next(month: string): string {
  const [year, number] = month.split('-').map(Number);
  return number === 12 ? `${year + 1}-01` : `${year}-${String(number + 1).padStart(2, '0')}`;
}
