import { Bonjour } from 'bonjour-service';
import { MODEL, UUID } from './words';

/** Makes the scanner known by mDNS, as eSCL has it (`_uscan._tcp`); gives what takes that back. */
export function announce(port: number): () => Promise<void> {
  // Without a network there is nobody to tell; the scanner is then reached by its address.
  const bonjour = new Bonjour({}, () => undefined);
  bonjour.publish({
    name: MODEL,
    type: 'uscan',
    port,
    txt: {
      txtvers: '1',
      vers: '2.63',
      rs: 'eSCL',
      ty: MODEL,
      uuid: UUID,
      is: 'platen,adf',
      duplex: 'T',
      cs: 'binary,grayscale,color',
      pdl: 'image/jpeg',
      adminurl: `http://127.0.0.1:${port}/`,
    },
  });
  return () => new Promise((done) => bonjour.unpublishAll(() => bonjour.destroy(() => done())));
}
