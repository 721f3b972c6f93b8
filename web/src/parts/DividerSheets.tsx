import { useState } from 'react';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Kind, KINDS } from '@crow/core/reading/facts/fact';
import { useFolders } from '../queries';
import { DialogFrame } from './AskText';
import { Button, Choice, inputLook } from './controls';
import { FolderField } from './FolderField';
import { kindName } from './words';

const MOST_COPIES = 100;
const KIND_CHOICES = [
  { value: '' as Kind | '', name: 'any' },
  ...KINDS.map((kind) => ({ value: kind, name: kindName(kind) })),
];

/** Divider sheets to print: how many, and for which folder and kind of papers, if for one. */
export function DividerSheets({ onClose }: { onClose: () => void }) {
  const { data: folders = [] } = useFolders();
  const [folder, setFolder] = useState('');
  const [kind, setKind] = useState<Kind | ''>('');
  const [copies, setCopies] = useState(5);
  const query = { ...(folder.trim() && { folder: folder.trim() }), ...(kind && { kind }), copies };
  return (
    <DialogFrame title="Divider sheets" onClose={onClose}>
      <p className="mb-3 text-sm text-quiet">
        Laid between papers in the feeder, they begin a new document and are taken out by themselves. Name a folder or a
        kind, and what lies behind gets it.
      </p>
      <div className="flex flex-col gap-3 text-sm">
        <div>
          <span className="mb-1 block text-xs text-quiet" aria-hidden>
            Folder (optional)
          </span>
          <FolderField
            label="Folder of the papers behind it"
            folders={folders}
            value={folder}
            onChange={setFolder}
            list="below"
          />
        </div>
        <div className="flex items-center gap-5">
          <Choice label="Kind" shown value={kind} choices={KIND_CHOICES} onChange={setKind} />
          <label className="flex items-center gap-2">
            Sheets
            <input
              type="number"
              min={1}
              max={MOST_COPIES}
              value={copies}
              onChange={(event) =>
                setCopies(Math.min(MOST_COPIES, Math.max(1, Math.round(Number(event.target.value)))))
              }
              className={`${inputLook} w-20`}
            />
          </label>
        </div>
      </div>
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <a
          className="inline-flex h-8 items-center border border-accent bg-accent px-3 text-sm text-on-accent hover:brightness-110"
          href={addressOf(endpoints.dividerSheets, { query })}
          target="_blank"
          rel="noreferrer"
          onClick={onClose}
        >
          Open as PDF
        </a>
      </div>
    </DialogFrame>
  );
}
