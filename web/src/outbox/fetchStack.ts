import type { HttpRequest, HttpResponse, HttpStack } from 'tus-js-client';

/** Requests by fetch, for service workers, which have nothing else; it does not tell how far a body has gone. */
export class FetchStack implements HttpStack {
  createRequest(method: string, url: string): HttpRequest {
    return new FetchRequest(method, url);
  }

  getName(): string {
    return 'fetch';
  }
}

class FetchRequest implements HttpRequest {
  private readonly headers: Record<string, string> = {};
  private readonly ending = new AbortController();

  constructor(
    private readonly method: string,
    private readonly url: string,
  ) {}

  getMethod = (): string => this.method;
  getURL = (): string => this.url;
  getHeader = (name: string): string | undefined => this.headers[name];
  setHeader(name: string, value: string): void {
    this.headers[name] = value;
  }
  setProgressHandler(): void {}
  getUnderlyingObject = (): undefined => undefined;

  async send(body?: BodyInit): Promise<HttpResponse> {
    const answer = await fetch(this.url, {
      method: this.method,
      headers: this.headers,
      body: body ?? null,
      signal: this.ending.signal,
    });
    const text = await answer.text();
    return {
      getStatus: () => answer.status,
      getHeader: (name) => answer.headers.get(name) ?? undefined,
      getBody: () => text,
      getUnderlyingObject: () => answer,
    };
  }

  abort(): Promise<void> {
    this.ending.abort();
    return Promise.resolve();
  }
}
