import { DropdownMenu } from 'radix-ui';
import { Ellipsis } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { later } from '../../parts/later';
import { askBytes } from '../../api';
import { AskFolder, AskText } from '../../parts/AskText';
import { IconButton, Key } from '../../parts/controls';
import { folderAtPath } from '../../parts/folderPaths';
import { KeyWords, useKeys } from '../../parts/keys';
import { shownMoment } from '../../parts/days';
import { menuItemLook, menuLook } from '../../parts/menu';
import { useNotices } from '../../parts/notices';
import { addPagesAddress } from '../../parts/wayBack';
import { bytes } from '../../parts/words';
import { useChange, useFolders, useMay, useVersions } from '../../queries';
import { useChosen } from './chosen';
import { printPdf } from './printPdf';
import { useShelfPlace } from './shelfPlace';

const CopiesDialog = later(async () => (await import('./sending/CopiesDialog')).default);

const SignDialog = later(async () => (await import('./sending/SignDialog')).default);

const KEYS: KeyWords = [
  ['F2', 'Rename the open document'],
  ['m', 'Move it to another folder'],
  ['Delete', 'Put it into the bin'],
];

/** Whether the device takes files from here for its other applications (Web Share). */
const canHandOn =
  'canShare' in navigator && navigator.canShare({ files: [new File([], 'a.pdf', { type: 'application/pdf' })] });

/** What can be done with a document on the shelf; each thing can be undone. */
export function DocumentMenu({
  document,
  keys = true,
  onHide,
}: {
  document: Document;
  keys?: boolean;
  /** Begins to choose what is hidden in a copy. */
  onHide?: () => void;
}) {
  const [asking, setAsking] = useState<'name' | 'folder' | 'copies' | 'signed'>();
  const { data: folders = [] } = useFolders();
  const navigate = useNavigate();
  const { tell } = useNotices();
  const { folder, find, go } = useShelfPlace();
  const change = useChange(endpoints.changeDocument, ['document']);
  const makeFolder = useChange(endpoints.makeFolder, ['folder']);
  const { id, name, folderId, folderPath, state, binnedAt } = document;
  const params = { id };
  const bringBack = useChange(endpoints.bringBackDocument, ['document'], () => go({ folder, document: id, find }));
  const bin = useChange(endpoints.binDocument, ['document'], () => {
    const undo = () => bringBack.mutate({ params });
    tell({ text: `“${name}” is in the bin.`, action: { label: 'Bring it back', run: undo } });
    go({ folder, find });
  });
  const unfile = useChange(endpoints.unfileDocument, ['document'], () => void navigate(`/check/${id}`));
  const onShelf = state !== 'check' && !binnedAt;

  const rename = async (to: string) => {
    const changed = await change.mutateAsync({ params, body: { name: to } });
    tell({
      text: `Renamed to “${changed.name}”.`,
      action: { label: 'Undo', run: () => change.mutate({ params, body: { name } }) },
    });
  };
  const move = async (path: string) => {
    const target = folderAtPath(folders, path) ?? (await makeFolder.mutateAsync({ body: { path } }));
    const changed = await change.mutateAsync({ params, body: { folderId: target.id } });
    const undo = () => change.mutate({ params, body: { folderId: folderId!, name } });
    tell({
      text: `“${changed.name}” is now in ${changed.folderPath?.replaceAll('/', ' / ')}.`,
      action: { label: 'Undo', run: undo },
    });
  };
  const toBin = () => bin.mutate({ params });
  const backToCheck = () => unfile.mutate({ params });
  const pdf = addressOf(endpoints.documentPdf, { params, query: {} });
  /** The device's own share sheet, with the PDF. */
  const handOn = async () => {
    try {
      const bytes = await askBytes(endpoints.documentPdf, { params, query: {} });
      const file = new File([bytes], `${name}.pdf`, { type: 'application/pdf' });
      await navigator.share({ files: [file], title: name });
    } catch (error) {
      // Closing the sheet without choosing anything is no failure.
      if ((error as Error).name !== 'AbortError')
        tell({ text: 'This device did not take the PDF; download it instead.' });
    }
  };
  const { ids: chosen } = useChosen();
  const works = useMay('work');
  const acts = keys && works && onShelf && chosen.size === 0;
  useKeys(
    acts ? { F2: () => setAsking('name'), m: () => setAsking('folder'), Delete: toBin } : {},
    acts ? KEYS : undefined,
  );

  if (state === 'check') {
    return (
      <Link className="px-2 text-accent underline" to={`/check/${id}`}>
        Check it
      </Link>
    );
  }
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <IconButton name="More about this document">
            <Ellipsis size={17} />
          </IconButton>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={menuLook} align="end">
            <DropdownMenu.Item className={menuItemLook} disabled={!document.bytes} asChild>
              <a href={pdf} target="_blank" rel="noreferrer">
                Open the PDF
              </a>
            </DropdownMenu.Item>
            {canHandOn && (
              <DropdownMenu.Item className={menuItemLook} disabled={!document.bytes} onSelect={() => void handOn()}>
                Hand to another application …
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={menuItemLook} disabled={!document.bytes} asChild>
              <a href={`${pdf}?download`}>Download</a>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} disabled={!document.bytes} onSelect={() => printPdf(pdf)}>
              Print …
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} disabled={!document.bytes} onSelect={() => setAsking('copies')}>
              Copy or send …
            </DropdownMenu.Item>
            {onHide && (
              <DropdownMenu.Item className={menuItemLook} onSelect={onHide}>
                A copy with parts hidden …
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={menuItemLook} asChild>
              <a href={addressOf(endpoints.documentTextPdf, { params })}>Save as text for a small screen</a>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} asChild>
              <a href={addressOf(endpoints.documentEpub, { params })}>Save for a reading device (EPUB)</a>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} asChild>
              <a href={addressOf(endpoints.documentPictures, { params, query: { as: 'jpeg' } })}>
                Save as pictures (JPEG)
              </a>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} asChild>
              <a href={addressOf(endpoints.documentPictures, { params, query: { as: 'png' } })}>
                Save as pictures (PNG)
              </a>
            </DropdownMenu.Item>
            {works && <DropdownMenu.Separator className="my-1 border-t border-rule" />}
            {!works ? null : onShelf ? (
              <>
                <DropdownMenu.Item className={menuItemLook} onSelect={() => setAsking('name')}>
                  Rename … <Key>F2</Key>
                </DropdownMenu.Item>
                <DropdownMenu.Item className={menuItemLook} onSelect={() => setAsking('folder')}>
                  Move … <Key>m</Key>
                </DropdownMenu.Item>
                <DropdownMenu.Item
                  className={menuItemLook}
                  onSelect={() => void navigate(addPagesAddress(id, `/shelf/${folderId}/${id}`))}
                >
                  Add pages
                </DropdownMenu.Item>
                <DropdownMenu.Item
                  className={menuItemLook}
                  onSelect={() => void navigate(`/words/${id}`, { state: { from: `/shelf/${folderId}/${id}` } })}
                >
                  Doubtful words …
                </DropdownMenu.Item>
                <DropdownMenu.Item
                  className={menuItemLook}
                  disabled={!document.bytes}
                  onSelect={() => setAsking('signed')}
                >
                  Keep a signed copy …
                </DropdownMenu.Item>
                <EarlierVersions id={id} />
                <DropdownMenu.Item className={menuItemLook} onSelect={backToCheck}>
                  Back to Check
                </DropdownMenu.Item>
                <DropdownMenu.Item className={menuItemLook} onSelect={toBin}>
                  To the bin <Key>Del</Key>
                </DropdownMenu.Item>
              </>
            ) : (
              <DropdownMenu.Item className={menuItemLook} onSelect={() => bringBack.mutate({ params })}>
                Bring back
              </DropdownMenu.Item>
            )}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {asking === 'copies' && <CopiesDialog documents={[document]} onClose={() => setAsking(undefined)} />}
      {asking === 'signed' && <SignDialog document={document} onClose={() => setAsking(undefined)} />}
      {asking === 'name' && (
        <AskText
          title="Rename the document"
          label="Its name"
          initial={name}
          confirm="Rename"
          onConfirm={rename}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking === 'folder' && (
        <AskFolder
          title={`Move “${name}”`}
          label="To the folder"
          folders={folders}
          initial={folderPath ?? ''}
          confirm="Move"
          onConfirm={move}
          onClose={() => setAsking(undefined)}
        />
      )}
    </>
  );
}

/** The PDFs that the document had before its text was corrected or its pages changed, and those that were signed. */
function EarlierVersions({ id }: { id: string }) {
  const { data: versions = [] } = useVersions(id, true);
  if (versions.length === 0) return null;
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className={menuItemLook}>Earlier and signed versions</DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent className={menuLook}>
          {versions.map(({ number, until, bytes: size, signed }) => (
            <DropdownMenu.Item key={number} className={menuItemLook} asChild>
              <a
                href={addressOf(endpoints.versionPdf, { params: { id, number: String(number) } })}
                target="_blank"
                rel="noreferrer"
              >
                {signed
                  ? `signed ${shownMoment(until)} by ${signed.certified ?? signed.by}`
                  : `until ${shownMoment(until)}`}{' '}
                · {bytes(size)}
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}
