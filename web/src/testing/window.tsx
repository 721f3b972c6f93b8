import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, configure, render, screen, within } from '@testing-library/react';
import userEvent, { PointerEventsCheckLevel, UserEvent } from '@testing-library/user-event';
import { ReactElement } from 'react';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { Endpoint, Input, Output } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { ProblemReport } from '@crow/contract/problems';
import { Notices } from '../parts/notices';

// Machines are slow at times; what is waited for comes, or the test fails in the end.
configure({ asyncUtilTimeout: 20_000 });

interface Asked {
  endpoint: Endpoint;
  input: unknown;
}

/** A refusal, as the server would send it. */
export class Refusal {
  readonly report: ProblemReport;

  constructor(happened: string) {
    this.report = { code: 'not-ready', happened, kept: 'Nothing changed.', todo: 'Try again.' };
  }
}

/** What the schema of a reply gives; tuples among it as lists, as JSON has them. */
type Replied<E> = Output<E>;

/** A stand-in for the server: it answers what a test tells it to, as the contract has it, and remembers what it was asked. */
export class StandInServer {
  private readonly answers = new Map<Endpoint, (input: never) => unknown>();
  readonly asked: Asked[] = [];

  /** @param answer what is answered, or a Refusal */
  on<E extends Endpoint>(endpoint: E, answer: (input: Input<E>) => Replied<E> | Refusal): this {
    this.answers.set(endpoint, answer);
    return this;
  }

  /** What was asked of an endpoint, in order. */
  askedOf<E extends Endpoint>(endpoint: E): Input<E>[] {
    return this.asked.filter((each) => each.endpoint === endpoint).map(({ input }) => input as Input<E>);
  }

  fetch = (address: string, { method = 'GET', body }: { method?: string; body?: string } = {}): Promise<Response> => {
    const url = new URL(address, 'http://crow.test');
    const found = Object.values<Endpoint>(endpoints)
      .filter((each) => each.method === method)
      .map((endpoint) => ({ endpoint, params: paramsIn(endpoint.path, url.pathname) }))
      // A path that is named beats one with a param in that place.
      .sort((a, b) => Object.keys(a.params ?? {}).length - Object.keys(b.params ?? {}).length)
      .find(({ params }) => params);
    if (!found) throw new Error(`The contract has no ${method} ${url.pathname}.`);
    const { endpoint, params } = found;
    const query = Object.fromEntries(url.searchParams);
    const input = {
      ...(endpoint.params && { params: endpoint.params.cast(params) as unknown }),
      ...(endpoint.query && { query: endpoint.query.cast(query) as unknown }),
      // The bytes of a file are no body of the contract's.
      ...(typeof body === 'string' && { body: endpoint.body!.validateSync(JSON.parse(body)) as unknown }),
    };
    this.asked.push({ endpoint, input });
    const answer = this.answers.get(endpoint);
    if (!answer) return Promise.reject(new Error(`No answer is there for ${method} ${url.pathname}.`));
    const reply = answer(input as never);
    if (reply instanceof Refusal) return Promise.resolve(response(400, reply.report));
    // A stand-in that answers otherwise than the server could would prove nothing.
    endpoint.reply?.validateSync(reply, { strict: true });
    return Promise.resolve(reply === undefined ? response(204, undefined) : response(200, reply));
  };
}

function response(status: number, body: unknown): Response {
  return { ok: status < 400, status, json: () => Promise.resolve(structuredClone(body)) } as Response;
}

function paramsIn(pattern: string, path: string): Record<string, string> | undefined {
  const [wanted, given] = [`/api${pattern}`.split('/'), path.split('/')];
  if (wanted.length !== given.length) return undefined;
  const params: Record<string, string> = {};
  for (const [at, part] of wanted.entries()) {
    if (part.startsWith(':')) params[part.slice(1)] = decodeURIComponent(given[at]);
    else if (part !== given[at]) return undefined;
  }
  return params;
}

export interface Shown {
  user: UserEvent;
  /** The address that is shown, with what is behind the question mark. */
  address: () => string;
  /** Has everything asked again, as when the server says that it changed. */
  arrive: () => Promise<void>;
}

/**
 * Shows a part of the application as in a window, with a stand-in for the server behind it.
 * @param at the address, and `path` the route that it belongs to
 */
export function show(element: ReactElement, server: StandInServer, at = '/', path = '*'): Shown {
  globalThis.fetch = server.fetch as typeof fetch;
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 5000 } } });
  let shown = at;
  function Address() {
    const { pathname, search } = useLocation();
    shown = pathname + search;
    return null;
  }
  // Nothing is laid out here: what lies over what can't be told.
  const user = userEvent.setup({ pointerEventsCheck: PointerEventsCheckLevel.Never });
  render(
    <QueryClientProvider client={client}>
      <Notices>
        <MemoryRouter initialEntries={[at]}>
          <Address />
          <Routes>
            <Route path={path} element={element} />
            <Route path="*" element={<p>Elsewhere</p>} />
          </Routes>
        </MemoryRouter>
      </Notices>
    </QueryClientProvider>,
  );
  const arrive = () => act(() => client.invalidateQueries());
  return { user, address: () => shown, arrive };
}

/** A message at the foot of the window. */
export async function notice(text: string | RegExp): Promise<ReturnType<typeof within>> {
  const [said] = await screen.findAllByText(text);
  return within(said.closest('li') ?? said);
}
