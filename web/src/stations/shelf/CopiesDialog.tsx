import { FormEvent, useState } from 'react';
import { DocumentSummary } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { CopyWish } from '@crow/contract/sending';
import { askFile } from '../../api';
import { DialogFrame } from '../../parts/AskText';
import { Button, Choice, inputLook, Tick } from '../../parts/controls';
import { useNotices } from '../../parts/notices';
import { saveFile } from '../../parts/saveFile';
import { useKept } from '../../parts/useKept';
import { bytes, count } from '../../parts/words';

const MOST_ADDRESSES = 30;
/** What many mail servers still take; beyond it, it is said. */
const LARGE_MAIL = 15_000_000;
/** Bytes in a mail are written as letters: four for three. */
const IN_MAIL = 4 / 3;

/** Copies of papers: in which form, with which marks, locked or not; saved, or as a mail for the mail program. */
export function CopiesDialog({ documents, onClose }: { documents: readonly DocumentSummary[]; onClose: () => void }) {
  const several = documents.length > 1;
  const [wish, setWish] = useState<Omit<CopyWish, 'ids' | 'mail'>>({
    form: 'each',
    marks: 'with',
    password: '',
    mayPrint: true,
  });
  const [asMail, setAsMail] = useState(false);
  const [known, keep] = useKept('crow-addresses', { addresses: [] as string[] });
  const names = documents.map(({ name }) => name || 'a paper');
  const [mail, setMail] = useState({
    to: '',
    subject: several ? `${documents.length} papers` : names[0],
    text: `Attached:\n${names.map((name) => `– ${name}`).join('\n')}\n`,
  });
  const [making, setMaking] = useState(false);
  const { tell } = useNotices();
  const size = documents.reduce((sum, each) => sum + (each.bytes ?? 0), 0);
  const change = (part: Partial<typeof wish>) => setWish({ ...wish, ...part });
  const make = async (event: FormEvent) => {
    event.preventDefault();
    setMaking(true);
    try {
      const body: CopyWish = { ...wish, ids: documents.map(({ id }) => id), mail: asMail ? mail : null };
      const made = await askFile(endpoints.makeCopies, { body });
      saveFile(made.bytes, made.name);
      const to = mail.to.trim();
      if (asMail && to)
        keep({ addresses: [to, ...known.addresses.filter((each) => each !== to)].slice(0, MOST_ADDRESSES) });
      tell({
        text: asMail
          ? `“${made.name}” is saved (${bytes(made.bytes.size)}): open it, and your mail program has the mail ready to send.`
          : `“${made.name}” is saved (${bytes(made.bytes.size)}).`,
      });
      onClose();
    } catch (error) {
      tell({ error });
      setMaking(false);
    }
  };
  return (
    <DialogFrame
      wide
      title={several ? `Copies of ${count(documents.length, 'paper')}` : `A copy of “${names[0]}”`}
      onClose={onClose}
    >
      <form onSubmit={(event) => void make(event)} className="flex flex-col gap-3">
        {several && (
          <Choice
            label="As"
            shown
            value={wish.form}
            choices={[
              { value: 'each', name: 'a PDF each' },
              { value: 'merged', name: 'one PDF of all' },
            ]}
            onChange={(form) => change({ form })}
          />
        )}
        <Choice
          label="Marks"
          shown
          value={wish.marks}
          choices={[
            { value: 'with', name: 'with them' },
            { value: 'flat', name: 'as part of the pages' },
            { value: 'without', name: 'without them' },
          ]}
          onChange={(marks) => change({ marks })}
        />
        <label>
          Password to open it (none if empty)
          <input
            className={`${inputLook} mt-1`}
            autoComplete="off"
            value={wish.password}
            onChange={(event) => change({ password: event.target.value })}
          />
        </label>
        <Tick checked={wish.mayPrint} onChange={(checked) => change({ mayPrint: checked })}>
          may be printed
        </Tick>
        <Tick checked={asMail} onChange={setAsMail}>
          in a mail for your mail program (.eml)
        </Tick>
        {asMail && (
          <>
            <label>
              To
              <input
                className={`${inputLook} mt-1`}
                list="known-addresses"
                value={mail.to}
                onChange={(event) => setMail({ ...mail, to: event.target.value })}
              />
              <datalist id="known-addresses">
                {known.addresses.map((address) => (
                  <option key={address} value={address} />
                ))}
              </datalist>
            </label>
            <label>
              Subject
              <input
                className={`${inputLook} mt-1`}
                value={mail.subject}
                onChange={(event) => setMail({ ...mail, subject: event.target.value })}
              />
            </label>
            <label>
              Text
              <textarea
                className={`${inputLook} mt-1 h-auto py-1`}
                rows={5}
                value={mail.text}
                onChange={(event) => setMail({ ...mail, text: event.target.value })}
              />
            </label>
          </>
        )}
        <p className="text-sm text-quiet">
          About {bytes(asMail ? size * IN_MAIL : size)}.
          {asMail && size * IN_MAIL > LARGE_MAIL && (
            <strong className="font-semibold text-attention"> Many mail servers refuse mails as large as this.</strong>
          )}
        </p>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={making} autoFocus>
            {making ? 'Making …' : asMail ? 'Save the mail' : several && wish.form === 'each' ? 'Save them' : 'Save it'}
          </Button>
        </div>
      </form>
    </DialogFrame>
  );
}
