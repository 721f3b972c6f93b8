import { DocumentContents } from '@crow/contract/documents';

type Place = { pageId: string; top: number };

/** The outline that a paper's own PDF brings, to go from heading to heading. */
export function Outline({ lines, onGo }: { lines: DocumentContents['outline']; onGo: (to: Place) => void }) {
  return (
    <nav aria-label="Contents" className="w-48 shrink-0 overflow-y-auto border-r border-rule bg-ground py-2">
      <ol>
        {lines.map(({ title, level, to }, at) => (
          <li key={at}>
            <button
              className="w-full py-1 pr-3 text-left text-sm hover:bg-sunken"
              style={{ paddingLeft: 12 + 14 * level }}
              onClick={() => onGo(to)}
            >
              {title}
            </button>
          </li>
        ))}
      </ol>
    </nav>
  );
}

/** The links on a page, over its words: within the paper, or to an address elsewhere, which opens in a window of its own. */
export function PageLinks({ links, onGo }: { links: DocumentContents['links']; onGo: (to: Place) => void }) {
  return links.map(({ box, address, to }, at) => {
    const [x, y, width, height] = box;
    const place = {
      className: 'absolute hover:bg-accent/15 focus-visible:outline-2 focus-visible:outline-accent',
      style: { left: `${100 * x}%`, top: `${100 * y}%`, width: `${100 * width}%`, height: `${100 * height}%` },
    };
    return to ? (
      <button key={at} {...place} aria-label="To another place in this paper" onClick={() => onGo(to)} />
    ) : (
      <a key={at} {...place} href={address!} title={address!} aria-label={address!} target="_blank" rel="noreferrer" />
    );
  });
}
