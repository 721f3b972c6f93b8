import { createTransport } from 'nodemailer';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { KnownMailAccount, MailAccountChange } from '@crow/contract/sending';
import { bareAddress } from '@crow/core/sending/addresses';
import { Setting } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { Seal } from '../platform/seal';

const SETTING = 'mailAccount';
/** A server that says nothing for so long is not there. */
const CONNECT_MS = 20_000;
const SILENCE_MS = 60_000;

type Kept = Omit<KnownMailAccount, 'hasPassword'> & { sealed: string | null };

/** What a mail server said, or that there is none. */
export class MailFailure extends Error {
  /** @param forGood whether the same mail would be refused again */
  constructor(
    message: string,
    readonly forGood: boolean,
  ) {
    super(message);
  }
}

/** The owner's account at a mail server: what is kept of it, and sending by it (SMTP, RFC 5321, through nodemailer). */
export class MailAccount {
  constructor(
    private readonly manager: EntityManager,
    private readonly seal: Seal,
  ) {}

  async show(): Promise<KnownMailAccount | null> {
    const kept = await this.kept();
    if (!kept) return null;
    const { sealed, ...known } = kept;
    return { ...known, hasPassword: sealed !== null };
  }

  /** From whom mails come, with the name; undefined while no account is set up. */
  from(): Promise<string | undefined> {
    return senderOf(this.manager);
  }

  /** Sets the account up. Its password is kept for the same user at the same server only. */
  async change(actor: ActingAs, { password, ...given }: MailAccountChange): Promise<KnownMailAccount | null> {
    const before = await this.kept();
    const isSame = before?.host === given.host && before.user === given.user;
    const sealed = password === null ? (isSame ? before.sealed : null) : password ? this.seal.seal(password) : null;
    await this.manager.transaction(async (inside) => {
      await inside.upsert(Setting, { name: SETTING, value: { ...given, sealed } }, ['name']);
      await record(inside, actor, 'changed', 'settings', null, { mail: given.from });
      await announce(inside, 'parcel', null);
    });
    return this.show();
  }

  async forget(actor: ActingAs): Promise<void> {
    await this.manager.transaction(async (inside) => {
      await inside.delete(Setting, { name: SETTING });
      await record(inside, actor, 'changed', 'settings', null, { mail: null });
      await announce(inside, 'parcel', null);
    });
  }

  /** Sends a short message to the account's own address. @throws Problem 'mail-not-set-up', 'mail-password-lost', 'mail-refused' */
  async tryOut(): Promise<void> {
    const from = await this.from();
    if (!from) throw new Problem('mail-not-set-up');
    const text = 'Mails of Crow Shelf reach you from this address.\n';
    try {
      await this.transport().then((transport) =>
        transport.sendMail({ from, to: from, subject: 'A test from Crow Shelf', text }),
      );
    } catch (error) {
      throw error instanceof Problem ? error : new Problem('mail-refused', { detail: saidBy(error) });
    }
  }

  /**
   * Sends a mail as it is written. @param to bare addresses @returns those of them that the server did not take
   * @throws Problem 'mail-not-set-up', 'mail-password-lost'; MailFailure
   */
  async send(raw: Buffer, to: readonly string[]): Promise<string[]> {
    const kept = await this.kept();
    const transport = await this.transport();
    try {
      const { rejected } = await transport.sendMail({ raw, envelope: { from: bareAddress(kept!.from), to: [...to] } });
      return (rejected ?? []).map(String);
    } catch (error) {
      throw new MailFailure(saidBy(error), isForGood(error));
    }
  }

  private kept(): Promise<Kept | undefined> {
    return keptAccount(this.manager);
  }

  private async transport() {
    const kept = await this.kept();
    if (!kept) throw new Problem('mail-not-set-up');
    const { host, port, security, user, sealed } = kept;
    const pass = sealed === null ? '' : this.seal.open(sealed);
    if (pass === undefined) throw new Problem('mail-password-lost');
    return createTransport({
      host,
      port,
      secure: security === 'tls',
      requireTLS: security === 'starttls',
      ignoreTLS: security === 'none',
      auth: user ? { user, pass } : undefined,
      connectionTimeout: CONNECT_MS,
      greetingTimeout: CONNECT_MS,
      socketTimeout: SILENCE_MS,
      disableFileAccess: true,
      disableUrlAccess: true,
    });
  }
}

async function keptAccount(manager: EntityManager): Promise<Kept | undefined> {
  return (await manager.findOneBy(Setting, { name: SETTING }))?.value as Kept | undefined;
}

/** From whom mails come; undefined while no account is set up. */
export async function senderOf(manager: EntityManager): Promise<string | undefined> {
  const kept = await keptAccount(manager);
  return kept && fromOf(kept);
}

function fromOf({ name, from }: Kept): string {
  return name ? `"${name.replace(/["\\]/g, '')}" <${bareAddress(from)}>` : bareAddress(from);
}

interface SmtpError extends Error {
  code?: string;
  responseCode?: number;
  response?: string;
}

/** What happened, in the words of whoever said it, on one line. */
function saidBy(error: unknown): string {
  const { code, response, message, responseCode } = error as SmtpError;
  if (code === 'EAUTH') return 'user or password is not right';
  if (code === 'EDNS' || /ENOTFOUND|EAI_AGAIN/.test(message)) return 'there is no server of that name';
  if (/ECONNREFUSED/.test(message)) return 'nothing answers at that server and port';
  if (code === 'ETIMEDOUT' || /ETIMEDOUT|Greeting never received/.test(message)) return 'it does not answer';
  if (code === 'ETLS' || /certificate|SSL|TLS/i.test(message)) return `no safe connection: ${oneLine(message)}`;
  return oneLine(response ?? message) || `code ${responseCode ?? code}`;
}

const LONGEST_SAID = 300;
const oneLine = (text: string) => text.replace(/\s+/g, ' ').replace(/\.$/, '').slice(0, LONGEST_SAID);

/** Answers that begin with 5 are for good (RFC 5321, 4.2.1); so is a password that is not right. */
function isForGood(error: unknown): boolean {
  const { code, responseCode } = error as SmtpError;
  return responseCode ? responseCode >= 500 : code === 'EAUTH' || code === 'EENVELOPE';
}
