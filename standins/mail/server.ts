import { AddressInfo } from 'node:net';
import { simpleParser } from 'mailparser';
import { SMTPServer, SMTPServerDataStream } from 'smtp-server';

/** A mail that has arrived. */
export interface Arrived {
  number: number;
  /** The envelope: from whom, to whom. */
  from: string;
  to: string[];
  subject: string;
  text: string;
  attachments: { name: string; mediaType: string; bytes: Buffer }[];
  raw: Buffer;
}

/** How it takes the next mails: as a server should; busy for now (4xx); not at all (5xx). */
export const MOODS = ['takes mails', 'is busy', 'refuses mails'] as const;
export type Mood = (typeof MOODS)[number];

/** The account that it knows. */
export const USER = 'imre@wickford-loom.example';
export const PASSWORD = 'madder weld indigo';
/** An address at which nobody is. */
const NOBODY = /^nobody@/;
const MOST_BYTES = 60 * 1024 ** 2;
const MOST_KEPT = 100;

export interface StandInMailServer {
  port: number;
  /** What has arrived, the latest last. */
  arrived: Arrived[];
  mood: Mood;
  close(): Promise<void>;
}

/** Starts the stand-in mail server on loopback (SMTP, RFC 5321, with AUTH): it takes mails, delivers them to nobody, and shows them. */
export async function startMailServer({ port = 0 } = {}): Promise<StandInMailServer> {
  let counted = 0;
  const state: StandInMailServer = { port: 0, arrived: [], mood: 'takes mails', close: () => closed(server) };
  const server = new SMTPServer({
    banner: 'the stand-in mail server',
    size: MOST_BYTES,
    // On loopback there is nobody to listen in.
    allowInsecureAuth: true,
    hideSTARTTLS: true,
    disableReverseLookup: true,
    onAuth: ({ username, password }, _session, done) =>
      username === USER && password === PASSWORD
        ? done(null, { user: username })
        : done(answer(535, 'Authentication credentials invalid')),
    onMailFrom: (_address, _session, done) => {
      if (state.mood === 'is busy') return done(answer(451, 'Try again later, the mailbox is being swept'));
      if (state.mood === 'refuses mails') return done(answer(550, 'This sender is not wanted here'));
      done();
    },
    onRcptTo: ({ address }, _session, done) =>
      NOBODY.test(address) ? done(answer(550, `There is nobody at ${address}`)) : done(),
    onData: (stream, { envelope }, done) => {
      read(stream).then(
        async ({ raw, tooLarge }) => {
          if (tooLarge) return done(answer(552, 'The mail is too large'));
          const { subject = '', text = '', attachments } = await simpleParser(raw);
          state.arrived.push({
            number: ++counted,
            from: envelope.mailFrom ? envelope.mailFrom.address : '',
            to: envelope.rcptTo.map(({ address }) => address),
            ...{ subject, text, raw },
            attachments: attachments.map(({ filename, contentType, content }) => ({
              name: filename ?? 'attachment',
              mediaType: contentType,
              bytes: content,
            })),
          });
          state.arrived.splice(0, state.arrived.length - MOST_KEPT);
          done();
        },
        (error: Error) => done(error),
      );
    },
  });
  server.on('error', () => undefined);
  await new Promise<void>((resolve, reject) => {
    server.server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  state.port = (server.server.address() as AddressInfo).port;
  return state;
}

async function read(stream: SMTPServerDataStream): Promise<{ raw: Buffer; tooLarge: boolean }> {
  const pieces: Buffer[] = [];
  for await (const piece of stream) if (!stream.sizeExceeded) pieces.push(piece as Buffer);
  return { raw: Buffer.concat(pieces), tooLarge: stream.sizeExceeded };
}

function answer(responseCode: number, message: string): Error {
  return Object.assign(new Error(message), { responseCode });
}

function closed(server: SMTPServer): Promise<void> {
  return new Promise((resolve) => server.close(() => resolve()));
}
