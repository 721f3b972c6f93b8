import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import { SumRow } from '@crow/core/ledger/books/bookSums';
import { digitsOf } from '@crow/core/money';
import { useShownScheme } from '../../parts/scheme';
import { monthName } from '../../parts/months';
import { money } from '../../parts/words';

Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip);
const MONTHS = Array.from({ length: 12 }, (_, at) => String(at + 1).padStart(2, '0'));

/** What months come to beside those of the year before: full bars, and bars that are only drawn round. The table beside it has the numbers. */
export default function BookChart({
  months,
  year,
  currency,
}: {
  months: readonly SumRow[];
  year: string;
  currency: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scheme = useShownScheme();
  useEffect(() => {
    const look = getComputedStyle(document.documentElement);
    const colour = (name: string) => look.getPropertyValue(name);
    const of = (name: 'total' | 'before') =>
      MONTHS.map((month) => (months.find(({ key }) => key === month)?.[name] ?? 0) / 10 ** digitsOf(currency));
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    const chart = new Chart(canvas.current!, {
      type: 'bar',
      data: {
        labels: MONTHS.map((month) => monthName(`${year}-${month}`).slice(0, 3)),
        datasets: [
          { label: year, data: of('total'), backgroundColor: colour('--accent') },
          {
            label: String(Number(year) - 1),
            data: of('before'),
            backgroundColor: 'transparent',
            borderColor: colour('--quiet'),
            borderWidth: 1.2,
          },
        ],
      },
      options: {
        animation: still ? false : { duration: 150 },
        maintainAspectRatio: false,
        scales: {
          x: { grid: { display: false }, ticks: { color: colour('--quiet') } },
          y: { grid: { color: colour('--rule') }, ticks: { color: colour('--quiet'), maxTicksLimit: 6 } },
        },
        plugins: {
          legend: { position: 'bottom', labels: { color: colour('--ink'), boxHeight: 10 } },
          tooltip: {
            callbacks: {
              label: ({ parsed, dataset }) =>
                `${dataset.label}: ${money({ units: Math.round((parsed.y ?? 0) * 10 ** digitsOf(currency)), currency })}`,
            },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [months, year, currency, scheme]);
  return (
    <div className="h-56">
      <canvas ref={canvas} role="img" aria-label={`By month, ${year} beside the year before`} />
    </div>
  );
}
