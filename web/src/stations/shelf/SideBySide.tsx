import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Panel, PanelGroup } from 'react-resizable-panels';
import { IconButton, Tick } from '../../parts/controls';
import { useKeys } from '../../parts/keys';
import { useKept } from '../../parts/useKept';
import { Handle } from './Handle';
import { OpenDocument } from './OpenDocument';

/** Two documents beside each other, which scroll together if that is wanted. */
export function SideBySide({ ids, query, onClose }: { ids: [string, string]; query: string; onClose: () => void }) {
  const [first, setFirst] = useState<HTMLElement | null>(null);
  const [second, setSecond] = useState<HTMLElement | null>(null);
  const [used, setUsed] = useState(0);
  const [kept, keep] = useKept('crow-side-by-side', { together: false });
  useEffect(() => {
    const [one, other] = used === 0 ? [first, second] : [second, first];
    if (!kept.together || !one || !other) return;
    const follow = () => {
      const share = one.scrollTop / Math.max(1, one.scrollHeight - one.clientHeight);
      other.scrollTop = share * (other.scrollHeight - other.clientHeight);
    };
    one.addEventListener('scroll', follow, { passive: true });
    return () => one.removeEventListener('scroll', follow);
  }, [first, second, used, kept.together]);
  useKeys({ Escape: onClose }, [['Escape', 'No longer beside each other']]);
  return (
    <div className="flex h-full flex-col">
      <div className="flex h-11 shrink-0 items-center gap-4 border-b border-rule bg-sunken pr-2 pl-4">
        <strong className="font-semibold">Beside each other</strong>
        <Tick className="mr-auto" checked={kept.together} onChange={(checked) => keep({ together: checked })}>
          scroll together
        </Tick>
        <IconButton name="No longer beside each other (Esc)" onClick={onClose}>
          <X size={17} />
        </IconButton>
      </div>
      <div className="min-h-0 flex-1">
        <PanelGroup direction="horizontal" autoSaveId="side-by-side">
          {ids.map((id, at) => [
            at > 0 && <Handle key="handle" />,
            <Panel key={id} order={at + 1} id={`document-${at}`} minSize={20}>
              <div
                className="h-full"
                onPointerEnter={() => setUsed(at)}
                onPointerDownCapture={() => setUsed(at)}
                onFocus={() => setUsed(at)}
              >
                <OpenDocument id={id} query={query} onScroller={at === 0 ? setFirst : setSecond} keys={used === at} />
              </div>
            </Panel>,
          ])}
        </PanelGroup>
      </div>
    </div>
  );
}
