/** Modules of white around a square code (ISO/IEC 18004, 5.3.8). */
const QUIET = 4;

/** A square code to be read from the screen: dark on white, in either scheme. @param rows of 0 and 1; 1 is dark */
export function SquareCode({ rows, name }: { rows: string[]; name: string }) {
  const size = rows.length + 2 * QUIET;
  const path = rows
    .flatMap((row, y) => [...row].map((module, x) => (module === '1' ? `M${x + QUIET} ${y + QUIET}h1v1h-1z` : '')))
    .join('');
  return (
    <svg
      role="img"
      aria-label={name}
      viewBox={`0 0 ${size} ${size}`}
      shapeRendering="crispEdges"
      className="w-72 max-w-full bg-paper shadow-paper"
    >
      <path d={path} fill="#000" />
    </svg>
  );
}
