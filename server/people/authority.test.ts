import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '../testing/made';
import { Authority } from './authority';

const NAMES = ['192.168.7.20', 'loom', 'loom.local'];

/** What openssl says of a certificate under an authority. */
function verified(authority: Authority, certificate: string): string {
  const folder = scratchFolder();
  const [trusted, shown] = [join(folder, 'authority.pem'), join(folder, 'shown.pem')];
  writeFileSync(trusted, new X509Certificate(authority.certificate).toString());
  writeFileSync(shown, certificate);
  try {
    return execFileSync('openssl', ['verify', '-x509_strict', '-purpose', 'sslserver', '-CAfile', trusted, shown], {
      encoding: 'utf8',
      stdio: 'pipe',
    });
  } catch (error) {
    return (error as { stderr: string }).stderr;
  }
}

it('vouches for this machine by name and address, as openssl has it', async () => {
  const authority = await Authority.in(join(scratchFolder(), 'authority'), NAMES);
  const { certificate } = await authority.certify(NAMES);
  expect(verified(authority, certificate)).toContain('OK');
  const shown = new X509Certificate(certificate);
  expect(shown.checkIP('192.168.7.20')).toBe('192.168.7.20');
  expect(shown.checkHost('loom.local')).toBe('loom.local');
  expect(shown.ca).toBe(false);
  expect((Date.parse(shown.validTo) - Date.parse(shown.validFrom)) / 86_400_000).toBeLessThan(398);
});

it.each(['bank.example', '8.8.8.8', 'notloom'])('can vouch for nothing else: %s', async (name) => {
  const authority = await Authority.in(join(scratchFolder(), 'authority'), NAMES);
  expect(authority.vouchesFor(name)).toBe(false);
  const { certificate } = await authority.certify([name]);
  expect(verified(authority, certificate)).toContain('permitted subtree violation');
});

it.each(['10.1.2.3', '192.168.0.4', 'other.local', 'loom'])('can vouch for what is in the house: %s', async (name) => {
  const authority = await Authority.in(join(scratchFolder(), 'authority'), NAMES);
  expect(authority.vouchesFor(name)).toBe(true);
  expect(verified(authority, (await authority.certify([name])).certificate)).toContain('OK');
});

it('is kept for its owner alone, and found again', async () => {
  const folder = join(scratchFolder(), 'authority');
  const first = await Authority.in(folder, NAMES);
  expect(statSync(join(folder, 'authority.key')).mode & 0o777).toBe(0o600);
  const again = await Authority.in(folder, ['10.0.0.9']);
  expect(await again.fingerprint()).toBe(await first.fingerprint());
  expect(await first.fingerprint()).toMatch(/^([0-9A-F]{2} ){31}[0-9A-F]{2}$/);
  expect(verified(first, (await again.certify(NAMES)).certificate)).toContain('OK');
});
