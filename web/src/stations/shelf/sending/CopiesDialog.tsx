import { FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { Document, DocumentSummary } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { CopyForm, CopyWish, Parcel, PackedWish } from '@crow/contract/sending';
import { Box } from '@crow/core/geometry';
import { bareAddress } from '@crow/core/sending/addresses';
import { askFile } from '../../../api';
import { DialogFrame } from '../../../parts/AskText';
import { Button, Choice, inputLook, Tick } from '../../../parts/controls';
import { shownMoment } from '../../../parts/days';
import { useNotices } from '../../../parts/notices';
import { saveFile } from '../../../parts/saveFile';
import { bytes, count } from '../../../parts/words';
import { useChange, useMailWays, useMay, useVersions } from '../../../queries';
import { copiesOnTheirWay, PlaceFields, PlaceWish } from './CopyPlaces';
import { LinkFields, LinkWish, USUAL_LINK } from './LinkFields';
import { LinkMade } from './LinkMade';
import { HIDDEN_NAME, MailFields, useProposedMail } from './MailFields';
import { Packing } from './Packing';
import { SizeChoice } from './SizeChoice';

/** How copies are handed over. */
type Way = 'save' | 'program' | 'mail' | 'link' | 'folder';
const FORMS: { value: CopyForm; name: string }[] = [
  { value: 'pdf', name: 'PDF' },
  { value: 'pictures', name: 'pictures (JPEG)' },
  { value: 'text', name: 'text (.txt)' },
  { value: 'epub', name: 'book for reading devices (EPUB)' },
];
/** No version, but what the paper is now. */
const NOW = 0;
/** What many mail servers still take; beyond it, it is said. */
const LARGE_MAIL = 15_000_000;
/** Bytes in a mail are written as letters: four for three. */
const IN_MAIL = 4 / 3;

/**
 * Copies of papers: in which form, how large, with which marks, locked or not; saved, in a mail, or behind a link.
 * @param hidden what is hidden in the copy, of one paper
 */
export default function CopiesDialog({
  documents,
  hidden,
  onClose,
  onMade,
}: {
  documents: readonly (DocumentSummary | Document)[];
  hidden?: { pageId: string; box: Box }[];
  onClose: () => void;
  onMade?: () => void;
}) {
  const several = documents.length > 1;
  const works = useMay('work');
  const owns = useMay('own');
  const [place, setPlace] = useState<PlaceWish>({ path: '', keep: false });
  const copyInto = useChange(endpoints.addCopyPlace, ['copy-place']);
  const { data: ways } = useMailWays(works);
  const [way, setWay] = useState<Way>('save');
  const [wish, setWish] = useState<Omit<PackedWish, 'ids' | 'hidden'>>({
    as: 'pdf',
    size: 'filed',
    form: 'each',
    marks: 'with',
    password: '',
    mayPrint: true,
    version: null,
  });
  const { data: versions = [] } = useVersions(documents[0].id, works && !several && !hidden);
  const signed = versions.filter((each) => each.signed);
  const [mail, setMail] = useProposedMail(documents, hidden !== undefined);
  const [link, setLink] = useState<LinkWish>(USUAL_LINK);
  const [making, setMaking] = useState(false);
  const [made, setMade] = useState<Parcel>();
  const { tell } = useNotices();
  const send = useChange(endpoints.makeParcel, ['parcel', 'document']);
  const size = documents.reduce((sum, each) => sum + (each.bytes ?? 0), 0);
  const names = documents.map(({ name }) => name || 'a paper');
  const change = (part: Partial<typeof wish>) => setWish({ ...wish, ...part });
  const ids = documents.map(({ id }) => id);
  const asPdf = wish.as === 'pdf';
  const done = () => {
    onMade?.();
    onClose();
  };

  const saveAtOnce = async () => {
    const { size: _, ...copies } = wish;
    const body: CopyWish = { ...copies, ids, mail: way === 'program' ? mail : null };
    const file = hidden
      ? await askFile(endpoints.copyWithHidden, { params: { id: ids[0] }, body: { areas: hidden } })
      : await askFile(endpoints.makeCopies, { body });
    saveFile(file.bytes, file.name);
    const saved = `“${file.name}” is saved (${bytes(file.bytes.size)})`;
    tell({
      text: way === 'program' ? `${saved}: open it, and your mail program has the mail ready to send.` : `${saved}.`,
    });
    done();
  };
  const pack = async () => {
    const parcel = await send.mutateAsync({
      body: {
        copies: { ...wish, ids, hidden: hidden ?? null },
        mail: way === 'mail' ? mail : null,
        link:
          way === 'link'
            ? {
                ...link,
                name: link.name.trim() || (several ? count(ids.length, 'paper') : hidden ? HIDDEN_NAME : names[0]),
              }
            : null,
      },
    });
    if (way !== 'mail') return setMade(parcel);
    tell({ text: `The mail to ${mail.to} is on its way. What becomes of it is under Sent.` });
    done();
  };
  const copyIntoFolder = async () => {
    const body = { ...place, folderId: null, documentIds: ids };
    tell({ text: copiesOnTheirWay(await copyInto.mutateAsync({ body })) });
    done();
  };
  const needsPacking = way === 'mail' || way === 'link' || (way === 'save' && asPdf && wish.size !== 'filed');
  const make = async (event: FormEvent) => {
    event.preventDefault();
    setMaking(true);
    try {
      await (way === 'folder' ? copyIntoFolder() : needsPacking ? pack() : saveAtOnce());
    } catch (error) {
      // What the server says of a change has been told.
      if (!needsPacking && way !== 'folder') tell({ error });
    }
    setMaking(false);
  };

  const title = hidden
    ? `A copy of “${names[0]}”, parts hidden`
    : several
      ? `Copies of ${count(documents.length, 'paper')}`
      : `A copy of “${names[0]}”`;
  if (made)
    return (
      <DialogFrame wide title={title} onClose={done}>
        {made.way === 'link' ? <LinkMade parcel={made} onDone={done} /> : <Packing parcel={made} onDone={done} />}
      </DialogFrame>
    );
  const verbs: Record<Way, string> = {
    save: several && wish.form === 'each' ? 'Save them' : 'Save it',
    program: 'Save the mail',
    mail: 'Send it',
    link: 'Make the link',
    folder: 'Copy there',
  };
  const asMail = way === 'mail' || way === 'program';
  return (
    <DialogFrame wide title={title} onClose={onClose}>
      <form onSubmit={(event) => void make(event)} className="flex max-h-[75dvh] flex-col gap-3 overflow-y-auto pr-1">
        <Choice<Way>
          label="Hand over"
          shown
          value={way}
          choices={[
            { value: 'save', name: 'saved on this device' },
            ...(hidden ? [] : [{ value: 'program' as const, name: 'in a mail for your mail program (.eml)' }]),
            ...(works
              ? [
                  {
                    value: 'mail' as const,
                    name: ways?.from ? `by mail, from ${bareAddress(ways.from)}` : 'by mail, from here',
                  },
                  { value: 'link' as const, name: 'by a link that ends by itself' },
                ]
              : []),
            // What is filed goes there as it is.
            ...(owns && !hidden ? [{ value: 'folder' as const, name: 'in a folder of this machine' }] : []),
          ]}
          onChange={setWay}
        />
        {way === 'folder' && <PlaceFields value={place} onChange={setPlace} />}
        {signed.length > 0 && way !== 'folder' && (
          <Choice
            label="Which"
            shown
            value={wish.version ?? NOW}
            choices={[
              { value: NOW, name: 'the paper as it is now' },
              ...signed.map(({ number, until, signed: by }) => ({
                value: number,
                name: `signed ${shownMoment(until)}${by?.certified ? ` as ${by.certified}` : ''}`,
              })),
            ]}
            onChange={(number) =>
              change({ version: number || null, as: 'pdf', size: 'filed', password: '', mayPrint: true })
            }
          />
        )}
        {!hidden && !wish.version && way !== 'folder' && (
          <div className="flex flex-wrap gap-x-6 gap-y-3">
            <Choice label="As" shown value={wish.as} choices={FORMS} onChange={(as) => change({ as })} />
            {several && (asPdf || wish.as === 'epub') && (
              <Choice
                label="Bound"
                shown
                value={wish.form}
                choices={[
                  { value: 'each', name: 'each by itself' },
                  { value: 'merged', name: 'all in one' },
                ]}
                onChange={(form) => change({ form })}
              />
            )}
            {asPdf && works && way !== 'program' && (
              <SizeChoice documents={documents} value={wish.size} onChange={(value) => change({ size: value })} />
            )}
            {asPdf && (
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
            )}
          </div>
        )}
        {asPdf && !wish.version && way !== 'folder' && !(hidden && way === 'save') && (
          <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
            <label className="min-w-56 flex-1">
              Password to open the PDF (none if empty)
              <input
                className={`${inputLook} mt-1`}
                autoComplete="off"
                value={wish.password}
                onChange={(event) => change({ password: event.target.value })}
              />
            </label>
            <Tick className="h-8" checked={wish.mayPrint} onChange={(checked) => change({ mayPrint: checked })}>
              may be printed
            </Tick>
          </div>
        )}
        {asMail && <MailFields value={mail} known={ways?.addresses ?? []} onChange={setMail} />}
        {way === 'mail' && ways && !ways.from && (
          <p role="alert" className="border-l-4 border-attention px-3">
            No mail account is set up yet: the owner does that under{' '}
            <Link className="underline" to="/people?part=mail">
              People and devices, Mail
            </Link>
            .
          </p>
        )}
        {way === 'link' && (
          <LinkFields value={link} usual={hidden ? HIDDEN_NAME : 'the paper’s name'} onChange={setLink} />
        )}
        {(wish.size === 'filed' || way === 'program') && (
          <p className="text-sm text-quiet">
            {asPdf && <>About {bytes(asMail ? size * IN_MAIL : size)}.</>}
            {asPdf && asMail && size * IN_MAIL > LARGE_MAIL && (
              <strong className="font-semibold text-attention">
                {' '}
                Many mail servers refuse mails as large as this{way === 'mail' ? ': choose a smaller size' : ''}.
              </strong>
            )}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button
            main
            type="submit"
            disabled={making || (way === 'mail' && !ways?.from) || (way === 'folder' && !place.path.trim())}
            autoFocus
          >
            {making ? 'Making …' : verbs[way]}
          </Button>
        </div>
      </form>
    </DialogFrame>
  );
}
