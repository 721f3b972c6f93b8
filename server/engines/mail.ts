import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { Attachment, ParsedMail, simpleParser } from 'mailparser';
import { Problem } from '@crow/contract/problems';
import { MailData } from '@crow/core/reading/facts/mailData';

/** A mail, and what is attached to it that may be papers. */
export interface ReadMail {
  head: MailData;
  text: string;
  papers: { name: string; bytes: Uint8Array }[];
}

const HEAD_BYTES = 8192;
/** What the head of every mail has some of (RFC 5322). */
const FIELD = /^(from|to|subject|date|message-id|received|return-path|mime-version|delivered-to):/gim;
/** A mail in a mailbox export begins so (RFC 4155). */
const ENVELOPE = /^From \S+ /;
/** A mail with all that is attached to it has no more. */
const MOST_MAIL_BYTES = 64 * 1024 * 1024;
const MOST_TEXT = 200_000;
/** What is attached to mails and is a paper; calendars, cards, keys and logos are none. */
const PAPER_NAME = /\.(pdf|jpe?g|png|tiff?|heic|heif|webp|xml|zip)$/i;
const PAPER_TYPE = /^(application\/(pdf|xml|zip)|image\/(jpeg|png|tiff|heic|heif|webp)|text\/xml)$/i;
const ENDINGS: Record<string, string> = {
  'application/pdf': 'pdf',
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/tiff': 'tiff',
};
/** Pictures that belong to the text of a mail and are no larger are logos. */
const LOGO_BYTES = 60_000;

/** Whether a file is a mail, or a mailbox export. */
export async function isMail(path: string): Promise<boolean> {
  const handle = await open(path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    const text = buffer
      .subarray(0, bytesRead)
      .toString('latin1')
      .replace(/^\ufeff|^ï»¿/, '');
    const [head] = text.split(/\r?\n\r?\n/);
    const begins = ENVELOPE.test(head) || /^[A-Za-z][A-Za-z-]*:[ \t]/.test(head);
    return (
      begins &&
      !head.includes('\0') &&
      new Set([...head.matchAll(FIELD)].map(([, name]) => name.toLowerCase())).size >= 2
    );
  } finally {
    await handle.close();
  }
}

/**
 * The mails in a file, one after the other: the one that it is, or those of a mailbox; null for one of these that can't be read, or is
 * larger than any mail.
 * @throws Problem 'mail-too-large', 'file-broken' for a mail by itself
 */
export async function* mailsIn(path: string, name: string): AsyncGenerator<ReadMail | null> {
  for await (const { bytes, isBox } of messagesIn(path)) {
    const mail = bytes && (await readMail(bytes));
    if (!mail && !isBox)
      throw bytes ? new Problem('file-broken', { name, format: 'a mail' }) : new Problem('mail-too-large', { name });
    yield mail;
  }
}

/** The mails as they are; without bytes where there are too many. */
async function* messagesIn(path: string): AsyncGenerator<{ bytes: Buffer | null; isBox: boolean }> {
  const input = createReadStream(path, 'latin1');
  const lines = createInterface({ input, crlfDelay: Infinity });
  let parts: string[] = [];
  let [bytes, isBox, wasBlank] = [0, false, true];
  const message = () => ({ bytes: bytes > MOST_MAIL_BYTES ? null : Buffer.from(parts.join('\r\n'), 'latin1'), isBox });
  try {
    for await (const line of lines) {
      if (wasBlank && ENVELOPE.test(line) && (isBox || bytes === 0)) {
        if (bytes > 0) yield message();
        [parts, bytes, isBox, wasBlank] = [[], 0, true, false];
        continue;
      }
      wasBlank = line === '';
      // In a mailbox, lines that begin so are quoted.
      const shown = isBox ? line.replace(/^>(>*From )/, '$1') : line;
      bytes += shown.length + 2;
      if (bytes > MOST_MAIL_BYTES) parts = [];
      else parts.push(shown);
    }
    if (bytes > MOST_MAIL_BYTES || parts.some((line) => line !== '')) yield message();
  } finally {
    input.destroy();
  }
}

/** @returns null for one that can't be read */
async function readMail(bytes: Buffer): Promise<ReadMail | null> {
  const options = { skipImageLinks: true, maxHtmlLengthToParse: 2_000_000 };
  const mail = await simpleParser(bytes, options).catch(() => null);
  if (!mail) return null;
  const sender = mail.from?.value[0];
  const recipients = [mail.to ?? []].flat().flatMap(({ value }) => value);
  return {
    head: {
      from: sender?.name || sender?.address || '',
      to: recipients
        .map((each) => each.name || each.address || '')
        .filter(Boolean)
        .join(', '),
      subject: mail.subject ?? '',
      sent: sentWhere(mail),
    },
    text: (mail.text ?? '').slice(0, MOST_TEXT),
    papers: mail.attachments.filter(isPaper).map((each, at) => ({
      name: nameOf(each) ?? `${mail.subject || 'Attachment'} ${at + 1}.${ENDINGS[each.contentType] ?? 'pdf'}`,
      bytes: each.content,
    })),
  };
}

/** When a mail was sent, in the time of whoever sent it: late in the evening it is still that day. */
function sentWhere({ date, headerLines }: ParsedMail): string | null {
  if (!date || Number.isNaN(date.getTime())) return null;
  const line = headerLines.find(({ key }) => key === 'date')?.line ?? '';
  const [, sign, hours, minutes] = /([+-])(\d{2})(\d{2})\s*(?:\(|$)/.exec(line.trim()) ?? [];
  const ahead = hours ? (sign === '-' ? -1 : 1) * (60 * Number(hours) + Number(minutes)) : 0;
  return new Date(date.getTime() + 60_000 * ahead).toISOString().replace(/\.\d+Z$/, '');
}

const nameOf = ({ filename }: Attachment) => filename?.trim() || undefined;

function isPaper(attachment: Attachment): boolean {
  const { contentType, content, related } = attachment;
  if (content.length === 0 || (related && content.length < LOGO_BYTES)) return false;
  const name = nameOf(attachment);
  return PAPER_TYPE.test(contentType) || (name !== undefined && PAPER_NAME.test(name));
}
