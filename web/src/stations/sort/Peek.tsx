import { Dialog } from 'radix-ui';
import { KeyboardEvent } from 'react';
import { ProblemText } from '../../parts/controls';
import { PagePicture, sizeFor } from '../../parts/PagePicture';
import { ArrangedPage } from '../../parts/useArrangement';

/** A page as large as the window allows; Space or Escape puts it back, arrows leaf on. */
export function Peek({
  page,
  open,
  onClose,
  onStep,
}: {
  page: ArrangedPage;
  open: boolean;
  onClose: () => void;
  onStep: (by: number) => void;
}) {
  const scale = Math.min((window.innerWidth - 120) / page.width, (window.innerHeight - 60) / page.height);
  const hear = (event: KeyboardEvent) => {
    if (event.key === ' ') onClose();
    else if (event.key === 'ArrowRight') onStep(1);
    else if (event.key === 'ArrowLeft') onStep(-1);
    else return;
    event.preventDefault();
  };
  return (
    <Dialog.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#141318]/60" />
        <Dialog.Content
          aria-describedby={undefined}
          onKeyDown={hear}
          onClick={onClose}
          className="fixed inset-0 z-40 flex flex-col items-center justify-center gap-2 outline-none"
        >
          <Dialog.Title className="sr-only">Page {page.index + 1}</Dialog.Title>
          <div className="shadow-paper" style={{ width: page.width * scale, height: page.height * scale }}>
            <PagePicture page={page} size={sizeFor(page.width * scale, page)} alt={`Page ${page.index + 1}`} />
          </div>
          {page.problem && <ProblemText report={page.problem} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
