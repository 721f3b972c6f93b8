import { Page } from '@crow/contract/pages';
import { PagePicture, sizeFor } from '../../parts/PagePicture';
import { useSize } from '../../parts/useSize';
import { WarningLine } from '../../parts/Warning';

const PADDING = 40;

/** The page that the ribbon is at, as large as there is room. */
export function PageView({
  page,
  name,
  number,
  onTidy,
}: {
  page: Page;
  name: string;
  number: number;
  onTidy: () => void;
}) {
  const [ref, space] = useSize<HTMLDivElement>();
  const scale = Math.min((space.width - PADDING) / page.width, (space.height - PADDING) / page.height);
  const width = Math.max(0, page.width * scale);
  return (
    <figure className="flex min-h-0 flex-1 flex-col">
      <WarningLine page={page} onTidy={onTidy} hint="y" />
      <div ref={ref} className="flex min-h-0 flex-1 items-center justify-center overflow-hidden">
        {width > 0 && (
          <div
            className={`shadow-paper ${page.dropped ? 'opacity-30' : ''}`}
            style={{ width, height: page.height * scale }}
          >
            <PagePicture page={page} size={sizeFor(width, page)} alt={`Page ${number} of ${name}`} />
          </div>
        )}
      </div>
    </figure>
  );
}
