const FLIGHT_MS = 190;

/** Shows where the paper went: the page shrinks from the desk into the folder strip. Not with reduced motion. */
export function showFlight(): void {
  if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) return;
  const page = document.querySelector<HTMLElement>('[data-desk] [data-page] img');
  const target = document.querySelector<HTMLElement>('[data-arrivals]');
  if (!page || !target) return;
  const from = page.getBoundingClientRect();
  const to = target.getBoundingClientRect();
  const copy = page.cloneNode() as HTMLElement;
  Object.assign(copy.style, {
    position: 'fixed',
    left: `${from.left}px`,
    top: `${from.top}px`,
    width: `${from.width}px`,
    height: `${from.height}px`,
    transformOrigin: '0 0',
    zIndex: '50',
    pointerEvents: 'none',
  });
  document.body.append(copy);
  const scale = Math.max(0.04, to.height / from.height);
  const end = `translate(${to.left - from.left}px, ${to.top - from.top}px) scale(${scale})`;
  const flight = copy.animate([{ transform: 'none' }, { transform: end, opacity: 0.4 }], {
    duration: FLIGHT_MS,
    easing: 'ease-in',
  });
  flight.onfinish = () => copy.remove();
  flight.oncancel = () => copy.remove();
}
