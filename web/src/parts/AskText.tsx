import { Dialog } from 'radix-ui';
import { FormEvent, ReactNode, useState } from 'react';
import { Folder } from '@crow/contract/folders';
import { Button, inputLook } from './controls';
import { FolderField } from './FolderField';
import { PathFrom } from './FolderInput';
import { folderAtPath } from './folderPaths';

interface AskProps {
  title: string;
  label: string;
  confirm: string;
  initial?: string;
  onConfirm: (text: string) => Promise<unknown> | void;
  onClose: () => void;
}

/** Asks for a line of text; stays open with what was typed when the server refuses it. */
export function AskText(props: AskProps) {
  return (
    <AskDialog {...props}>
      {(text, setText) => (
        <input
          className={inputLook}
          aria-label={props.label}
          autoFocus
          value={text}
          onFocus={(event) => event.target.select()}
          onChange={(event) => setText(event.target.value)}
        />
      )}
    </AskDialog>
  );
}

/** Asks for a folder, that exists or is to be made. */
export function AskFolder({ folders, ...props }: AskProps & { folders: Folder[] }) {
  const [from, setFrom] = useState<PathFrom>('there');
  const isSettled = (path: string) => from !== 'typed' || folderAtPath(folders, path) !== undefined;
  return (
    <AskDialog {...props} isReady={isSettled}>
      {(text, setText, submit) => (
        <FolderField
          label={props.label}
          folders={folders}
          value={text}
          onChange={(path, how) => {
            setText(path);
            setFrom(how);
          }}
          onEnter={submit}
          list="below"
          autoFocus
        />
      )}
    </AskDialog>
  );
}

function AskDialog({
  title,
  confirm,
  initial = '',
  onConfirm,
  onClose,
  isReady = () => true,
  children,
}: AskProps & {
  isReady?: (text: string) => boolean;
  children: (text: string, setText: (text: string) => void, submit: () => void) => ReactNode;
}) {
  const [text, setText] = useState(initial);
  const ready = text.trim() !== '' && isReady(text);
  const submit = async (event?: FormEvent) => {
    event?.preventDefault();
    if (!ready) return;
    try {
      await onConfirm(text.trim());
      onClose();
    } catch {
      // The problem has been told; what was typed stays.
    }
  };
  return (
    <DialogFrame title={title} onClose={onClose}>
      <form onSubmit={(event) => void submit(event)}>
        {children(text, setText, () => void submit())}
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={!ready}>
            {confirm}
          </Button>
        </div>
      </form>
    </DialogFrame>
  );
}

/** Something that is settled before anything else: over the window, until it is closed. */
export function DialogFrame({
  title,
  wide,
  onClose,
  children,
}: {
  title: string;
  wide?: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#000]/30" />
        <Dialog.Content
          aria-describedby={undefined}
          // The list of a field closes first.
          onEscapeKeyDown={(event) => isOpenList(event.target) && event.preventDefault()}
          className={`fixed left-1/2 z-40 max-w-[94vw] -translate-x-1/2 border border-quiet bg-raised p-5 ${wide ? 'top-[10dvh] w-[640px]' : 'top-1/3 w-[420px]'}`}
        >
          <Dialog.Title className="mb-3 truncate text-lg font-semibold">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const isOpenList = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.getAttribute('aria-expanded') === 'true';
