import { FormEvent, useState } from 'react';
import { Document } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { newSigningKey } from '@crow/contract/signing';
import { ReportedProblem } from '../../../api';
import { DialogFrame } from '../../../parts/AskText';
import { Button, Choice, FileButton, inputLook } from '../../../parts/controls';
import { shownDay } from '../../../parts/days';
import { useNotices } from '../../../parts/notices';
import { useChange, useSigningKeys } from '../../../queries';

const NONE = 'none';
const NEW = 'new';
const FILE = 'file';
const ISO_DAY = 10;

/** Keeps the paper as it is now, with its marks, as a copy that never changes, signed digitally where somebody has a key. */
export default function SignDialog({ document, onClose }: { document: Document; onClose: () => void }) {
  const { data: keys } = useSigningKeys();
  const [chosen, setChosen] = useState<string>();
  const [name, setName] = useState('');
  const [passPhrase, setPassPhrase] = useState('');
  const [reason, setReason] = useState('');
  const [file, setFile] = useState<File>();
  const [wrong, setWrong] = useState<string>();
  const [busy, setBusy] = useState(false);
  const { tell } = useNotices();
  const sign = useChange(endpoints.signDocument, ['document']);
  const make = useChange(endpoints.makeSigningKey, ['signature']);
  const bring = useChange(endpoints.importSigningKey, ['signature']);
  const forget = useChange(endpoints.forgetSigningKey, ['signature'], () => setChosen(undefined));
  if (!keys) return null;
  const by = chosen ?? keys[0]?.id ?? NONE;
  const key = keys.find(({ id }) => id === by);

  /** The key to sign with, made or brought in first where it is not there yet. */
  const keyToUse = async (): Promise<string | undefined> => {
    if (by === NONE) return undefined;
    if (key) return key.id;
    const all =
      by === NEW
        ? await make.mutateAsync({ body: await newSigningKey.validate({ name, passPhrase }) })
        : await bring.mutateAsync({ body: { file: await base64Of(file!), passPhrase } });
    const { id } = all.at(-1)!;
    setChosen(id);
    return id;
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setWrong(undefined);
    setBusy(true);
    try {
      const id = await keyToUse();
      const body = { key: id ? { id, passPhrase } : null, reason };
      const [version] = await sign.mutateAsync({ params: { id: document.id }, body });
      const as = version.signed?.certified;
      tell({
        text: `The copy is kept${as ? `, signed as ${as}` : ''}; it is under “Earlier and signed versions”, and can be sent.`,
      });
      onClose();
    } catch (error) {
      if ((error as Error).name === 'ValidationError') setWrong((error as Error).message);
      // What the server says of a change has been told.
      else if (!(error instanceof ReportedProblem)) tell({ error });
    }
    setBusy(false);
  };
  const ready = by === NONE || (passPhrase !== '' && (by !== NEW || name.trim() !== '') && (by !== FILE || file));
  return (
    <DialogFrame wide title={`A signed copy of “${document.name}”`} onClose={onClose}>
      <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)}>
        <p className="text-quiet">
          The paper as it is now, with the signature and the other marks on its pages, is kept as a copy that never
          changes. What you do to the paper afterwards is not in it.
        </p>
        <Choice
          label="Signed digitally"
          shown
          value={by}
          choices={[
            ...keys.map(({ id, name: who, issuer }) => ({
              value: id,
              name: issuer === who ? `with the key of ${who}` : `with the key of ${who}, from ${issuer}`,
            })),
            { value: NONE, name: 'no: it only never changes' },
            { value: NEW, name: 'with a new key that is made here' },
            { value: FILE, name: 'with a key from a file (.p12, .pfx)' },
          ]}
          onChange={setChosen}
        />
        {key && (
          <p className="text-sm text-quiet">
            Good until {shownDay(key.until.slice(0, ISO_DAY))}. Fingerprint{' '}
            <span className="font-mono break-words">{key.fingerprint}</span>{' '}
            <button type="button" className="underline" onClick={() => forget.mutate({ params: { id: key.id } })}>
              Let go of this key
            </button>
          </p>
        )}
        {by === NEW && (
          <>
            <label>
              Your name, as whoever gets it reads it
              <input className={`${inputLook} mt-1`} value={name} onChange={(event) => setName(event.target.value)} />
            </label>
            <p className="text-sm text-quiet">
              Nobody else vouches for a key that is made here: it shows that nothing was changed, and, to whoever knows
              its fingerprint, that it was you.
            </p>
          </>
        )}
        {by === FILE && (
          <div className="flex items-center gap-3">
            <FileButton accept=".p12,.pfx,application/x-pkcs12" onFile={setFile}>
              The file with key and certificate …
            </FileButton>
            {file && <span className="min-w-0 truncate">{file.name}</span>}
          </div>
        )}
        {by !== NONE && (
          <label>
            {by === NEW ? 'A pass phrase for it' : by === FILE ? 'Its password' : 'Its pass phrase'}
            <input
              className={`${inputLook} mt-1`}
              type="password"
              autoComplete="off"
              value={passPhrase}
              onChange={(event) => setPassPhrase(event.target.value)}
            />
          </label>
        )}
        <label>
          What signing it means (may be empty)
          <input
            className={`${inputLook} mt-1`}
            placeholder="I agree to this contract"
            maxLength={300}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        {wrong && (
          <p role="alert" className="font-semibold text-danger">
            {wrong}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={!ready || busy}>
            {busy ? 'Signing …' : by === NONE ? 'Keep the copy' : 'Sign and keep it'}
          </Button>
        </div>
      </form>
    </DialogFrame>
  );
}

function base64Of(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(reader.error ?? new Error('the file can’t be read'));
    reader.readAsDataURL(file);
  });
}
