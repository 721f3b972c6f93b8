import { FormEvent, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { KnownMailAccount, mailAccountChange, MAIL_SECURITIES } from '@crow/contract/sending';
import { ask, reportOf } from '../../api';
import { textBy, textProblem } from '@crow/core/filing/pattern';
import { Button, Choice, inputLook, ProblemText } from '../../parts/controls';
import { useNotices } from '../../parts/notices';
import { useChange, useMailAccount, useSettings } from '../../queries';

const SECURITIES: Record<(typeof MAIL_SECURITIES)[number], string> = {
  tls: 'encrypted from the first byte (TLS)',
  starttls: 'encrypted after a word (STARTTLS)',
  none: 'not encrypted: only for a server on this machine',
};
/** The ports that are usual (RFC 8314; RFC 6409). */
const PORTS: Record<(typeof MAIL_SECURITIES)[number], number> = { tls: 465, starttls: 587, none: 25 };
const EMPTY: Omit<KnownMailAccount, 'hasPassword'> = {
  ...{ host: '', port: PORTS.tls, user: '', from: '', name: '' },
  security: 'tls',
};

/** The account at a mail server that papers are sent from, and what a mail says. */
export function MailSetUp() {
  const { data } = useMailAccount();
  if (!data) return null;
  return (
    <div className="mx-auto grid max-w-5xl items-start gap-x-12 gap-y-8 p-4 md:grid-cols-[minmax(0,1fr)_24rem] md:p-8">
      <Account account={data.account} />
      <Form />
    </div>
  );
}

function Account({ account }: { account: KnownMailAccount | null }) {
  const [given, setGiven] = useState({ ...EMPTY, ...account });
  const [password, setPassword] = useState<string | null>(null);
  const [problem, setProblem] = useState<string>();
  const [tried, setTried] = useState<'trying' | 'good' | { error: unknown }>();
  const { tell } = useNotices();
  const save = useChange(endpoints.changeMailAccount, ['parcel']);
  const forget = useChange(endpoints.forgetMailAccount, ['parcel'], () => {
    setGiven(EMPTY as typeof given);
    setPassword(null);
    setTried(undefined);
    tell({ text: 'The account and its password are forgotten.' });
  });
  const change = (part: Partial<typeof given>) => setGiven({ ...given, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    let body;
    try {
      body = await mailAccountChange.validate({ ...given, password }, { stripUnknown: true });
      setProblem(undefined);
    } catch (error) {
      return setProblem((error as Error).message);
    }
    setTried('trying');
    try {
      await save.mutateAsync({ body });
      setPassword(null);
      await ask(endpoints.tryMailAccount, {});
      setTried('good');
    } catch (error) {
      setTried({ error });
    }
  };
  const field = (name: 'host' | 'user' | 'from' | 'name', label: string, hint?: string) => (
    <label>
      <span className="mb-1 block text-quiet">{label}</span>
      <input
        className={inputLook}
        autoComplete="off"
        placeholder={hint}
        value={given[name]}
        onChange={(event) => change({ [name]: event.target.value })}
      />
    </label>
  );
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} aria-label="Mail account">
      <h2 className="text-lg font-semibold">The account that papers are sent from</h2>
      <p className="text-quiet">
        Mails go from this machine straight to your own mail server, and to nobody else. Whoever runs it tells you these
        (SMTP). Without an account, a copy can still be opened as a mail in your mail program.
      </p>
      {field('from', 'From which address', 'imre@wickford-loom.example')}
      {field('name', 'With which name (may be empty)')}
      <div className="grid grid-cols-[minmax(0,1fr)_6rem] gap-3">
        {field('host', 'Mail server', 'mail.example.org')}
        <label>
          <span className="mb-1 block text-quiet">Port</span>
          <input
            className={`${inputLook} font-mono`}
            inputMode="numeric"
            value={given.port}
            onChange={(event) => change({ port: Number(event.target.value.replace(/\D/g, '')) })}
          />
        </label>
      </div>
      <Choice
        label="The way there"
        shown
        value={given.security}
        choices={MAIL_SECURITIES.map((value) => ({ value, name: SECURITIES[value] }))}
        onChange={(security) =>
          change({ security, port: Object.values(PORTS).includes(given.port) ? PORTS[security] : given.port })
        }
      />
      {field('user', 'User (empty if the server asks for none)')}
      <label>
        <span className="mb-1 block text-quiet">
          Password{account?.hasPassword && password === null && ' (kept, encrypted; type another one to change it)'}
        </span>
        <input
          className={inputLook}
          type="password"
          autoComplete="new-password"
          value={password ?? ''}
          onChange={(event) => setPassword(event.target.value)}
        />
      </label>
      {problem && (
        <p role="alert" className="font-semibold text-danger">
          {problem}
        </p>
      )}
      {typeof tried === 'object' && <ProblemText report={reportOf(tried.error)} />}
      <p role="status" className={tried === 'good' ? 'font-semibold text-sure' : 'text-quiet'}>
        {tried === 'trying' && 'Trying it out …'}
        {tried === 'good' && `It works: a test message went to ${given.from}.`}
      </p>
      <div className="flex gap-2">
        <Button main type="submit" disabled={tried === 'trying'}>
          Keep it and try it out
        </Button>
        {account && <Button onClick={() => forget.mutate({})}>Forget the account</Button>}
      </div>
    </form>
  );
}

const EXAMPLE = {
  kind: 'invoice',
  who: 'Harbour Fibre Mill',
  date: '2026-03-14',
  number: 'HF-2291',
  amount: '184.20',
  currency: 'GBP',
};

/** What is proposed as subject and text of a mail with one paper. */
function Form() {
  const { data: settings } = useSettings();
  const [typed, setForm] = useState<{ subject: string; text: string }>();
  const { tell } = useNotices();
  const save = useChange(endpoints.changeSettings, ['settings'], () => tell({ text: 'It is proposed from now on.' }));
  const form = typed ?? settings?.mailForm;
  if (!form) return null;
  const problem = textProblem(form.subject || ' ') ?? textProblem(form.text);
  return (
    <form
      className="flex flex-col gap-3"
      aria-label="What a mail says"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate({ body: { mailForm: form } });
      }}
    >
      <h2 className="text-lg font-semibold">What a mail says</h2>
      <p className="text-quiet">
        Proposed for one paper, by its facts, as in names of files:{' '}
        {'{kind}, {who}, {number}, {date}, {amount}, {currency}, {due}'}.
      </p>
      <label>
        <span className="mb-1 block text-quiet">Subject</span>
        <input
          className={`${inputLook} font-mono text-sm`}
          value={form.subject}
          onChange={(event) => setForm({ ...form, subject: event.target.value })}
        />
      </label>
      <label>
        <span className="mb-1 block text-quiet">Text</span>
        <textarea
          className={`${inputLook} h-auto py-1 font-mono text-sm`}
          rows={6}
          value={form.text}
          onChange={(event) => setForm({ ...form, text: event.target.value })}
        />
      </label>
      {problem ? (
        <p role="alert" className="font-semibold text-danger">
          {problem}
        </p>
      ) : (
        <div aria-label="Example" role="group" className="border-l-2 border-rule pl-3 text-sm">
          <p className="font-semibold">{textBy(form.subject, EXAMPLE)}</p>
          <p className="whitespace-pre-line">{textBy(form.text, EXAMPLE)}</p>
        </div>
      )}
      <Button type="submit" className="self-start" disabled={problem !== undefined}>
        Propose this
      </Button>
    </form>
  );
}
