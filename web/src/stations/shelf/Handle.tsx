import { PanelResizeHandle } from 'react-resizable-panels';

/** What is dragged to give one of two panes more room. */
export function Handle() {
  return (
    <PanelResizeHandle className="w-px bg-rule outline-offset-0 data-[resize-handle-state=drag]:bg-accent data-[resize-handle-state=hover]:bg-accent" />
  );
}
