import { useState } from 'react';
import { DocumentSummary } from '@crow/contract/documents';
import { CopyWish } from '@crow/contract/sending';
import { textBy, valuesOf } from '@crow/core/filing/pattern';
import { writeMoney } from '@crow/core/money';
import { inputLook } from '../../../parts/controls';
import { useSettings } from '../../../queries';

export type MailWish = NonNullable<CopyWish['mail']>;

/** What a copy is called in which parts are hidden: its name and its facts may be what is hidden. */
export const HIDDEN_NAME = 'A paper, parts hidden';

/**
 * A mail as it is proposed: of one paper by the pattern in the settings, of several with their names; and what was made of it since.
 * @param hidden whether parts are hidden in the copy: then nothing is proposed that stands on the paper
 */
export function useProposedMail(
  documents: readonly DocumentSummary[],
  hidden: boolean,
): [MailWish, (mail: MailWish) => void] {
  const { data: settings } = useSettings();
  const [typed, setTyped] = useState<MailWish>();
  const form = settings?.mailForm;
  const [only] = documents;
  const several = documents.length > 1;
  const list = documents.map(({ name }) => `– ${name || 'a paper'}`).join('\n');
  const by = (pattern: string | undefined) =>
    pattern && !several ? textBy(pattern, hidden ? {} : valuesFor(only)) : '';
  const proposed = {
    to: '',
    subject:
      by(form?.subject) || (several ? `${documents.length} papers` : hidden ? HIDDEN_NAME : only.name || 'A paper'),
    text: several ? `Attached:\n${list}\n` : by(form?.text),
  };
  return [typed ?? proposed, setTyped];
}

function valuesFor({ kind, vendor, date, number, dueDate, total, createdAt, folderPath, pages }: DocumentSummary) {
  const facts = { kind, vendor, date, number, dueDate, total: total && writeMoney(total), currency: total?.currency };
  const known = Object.entries(facts).flatMap(([name, value]) => (value ? [[name, value]] : []));
  return valuesOf(Object.fromEntries(known) as Record<string, string>, {
    createdAt,
    folder: folderPath ?? undefined,
    pages,
  });
}

/** To whom a mail goes, about what, and what it says. @param known addresses that mails went to */
export function MailFields({
  value,
  known,
  onChange,
}: {
  value: MailWish;
  known: readonly string[];
  onChange: (mail: MailWish) => void;
}) {
  return (
    <>
      <label>
        To (several with commas between them)
        <input
          className={`${inputLook} mt-1`}
          list="known-addresses"
          autoComplete="off"
          value={value.to}
          onChange={(event) => onChange({ ...value, to: event.target.value })}
        />
        <datalist id="known-addresses">
          {known.map((address) => (
            <option key={address} value={address} />
          ))}
        </datalist>
      </label>
      <label>
        Subject
        <input
          className={`${inputLook} mt-1`}
          value={value.subject}
          onChange={(event) => onChange({ ...value, subject: event.target.value })}
        />
      </label>
      <label>
        Text
        <textarea
          className={`${inputLook} mt-1 h-auto py-1`}
          rows={5}
          value={value.text}
          onChange={(event) => onChange({ ...value, text: event.target.value })}
        />
      </label>
    </>
  );
}
