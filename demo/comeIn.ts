/** Where a program is that has let us in, and what shows it that it has. */
export interface Session {
  address: string;
  /** The value of the header `cookie`. */
  cookie: string;
}

/** Comes in by an address that lets one browser in. @throws Error when it lets nobody in any more */
export async function comeIn(entrance: string): Promise<Session> {
  const response = await fetch(entrance, { redirect: 'manual' });
  const [cookie] = response.headers.getSetCookie();
  if (!cookie) throw new Error('The address lets nobody in any more.');
  return { address: new URL(entrance).origin, cookie: cookie.split(';')[0] };
}
