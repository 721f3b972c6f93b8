import { createContext, ReactNode, useCallback, useContext, useMemo, useRef, useState } from 'react';
import { Toast } from 'radix-ui';
import { X } from 'lucide-react';
import { ProblemReport } from '@crow/contract/problems';
import { reportOf } from '../api';

interface Notice {
  text?: string;
  error?: unknown;
  /** Something to do about it, such as undoing. */
  action?: { label: string; run: () => void };
}
interface Shown extends Notice {
  key: number;
  report?: ProblemReport;
}

const NoticesContext = createContext<{ tell: (notice: Notice) => void }>({ tell: () => undefined });
export const useNotices = () => useContext(NoticesContext);

const GOOD_NEWS_MS = 8000;
const PROBLEM_MS = 30_000;

/** Short messages at the foot of the window: what happened, and how to undo it. Read out by screen readers. */
export function Notices({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<Shown[]>([]);
  const next = useRef(0);
  const tell = useCallback((notice: Notice) => {
    const report = notice.error === undefined ? undefined : reportOf(notice.error);
    setShown((before) => [...before.slice(-2), { ...notice, report, key: next.current++ }]);
  }, []);
  const value = useMemo(() => ({ tell }), [tell]);
  const close = (key: number) => setShown((before) => before.filter((notice) => notice.key !== key));
  return (
    <NoticesContext.Provider value={value}>
      <Toast.Provider swipeDirection="down">
        {children}
        {shown.map(({ key, text, report, action }) => (
          <Toast.Root
            key={key}
            duration={report ? PROBLEM_MS : GOOD_NEWS_MS}
            onOpenChange={(open) => !open && close(key)}
            className={`flex items-start gap-4 border-l-4 bg-ink px-4 py-3 text-ground ${report ? 'border-danger' : 'border-accent'}`}
          >
            <Toast.Description className="max-w-[56ch] flex-1">
              {report ? (
                <>
                  <strong className="font-semibold">{report.happened}</strong> {report.kept} {report.todo}
                </>
              ) : (
                text
              )}
            </Toast.Description>
            {action && (
              <Toast.Action altText={action.label} asChild>
                <button className="font-semibold underline underline-offset-2" onClick={action.run}>
                  {action.label}
                </button>
              </Toast.Action>
            )}
            <Toast.Close aria-label="Close">
              <X size={16} />
            </Toast.Close>
          </Toast.Root>
        ))}
        <Toast.Viewport className="fixed top-16 right-6 z-50 flex flex-col gap-2 outline-none" />
      </Toast.Provider>
    </NoticesContext.Provider>
  );
}
