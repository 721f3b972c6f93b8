import { escaped } from './doorPages';

/** Where a device gets the certificate of the authority that was made on this machine, and reads how to trust it. */
export const TRUST = '/trust';
export const CERTIFICATE = '/crow-shelf-authority.crt';

const ROW = 34;
const WIDTH = 240;

/** A drawing of rows in a device's settings; the one to choose stands out. */
function rows(title: string, names: string[], chosen: string): string {
  const drawn = names.map((name, at) => {
    const y = ROW * (at + 1) + 1;
    const mark = name === chosen ? ' class="here"' : '';
    return `<rect${mark} x="1" y="${y}" width="${WIDTH - 2}" height="${ROW - 4}"/><text x="12" y="${y + 20}">${escaped(name)}</text>`;
  });
  const height = ROW * (names.length + 1);
  return `<svg viewBox="0 0 ${WIDTH} ${height}" role="img" aria-label="${escaped(`${title}: choose ${chosen}`)}">
    <text x="4" y="22" font-weight="600">${escaped(title)}</text>${drawn.join('')}</svg>`;
}

/** How to have a device trust the certificate, in plain words and drawings. @param fingerprint as the owner's screen shows it */
export function trustPage(fingerprint: string): string {
  return `
<p>Your device warns about this address because it does not know the machine behind it yet. Once it trusts the certificate of that machine, the
warning goes away, and pages that you photograph without a connection can wait on the device.</p>
<p>First compare: the owner’s screen (Settings, “People and devices”) shows the same fingerprint. If it differs, stop here: then another machine
has answered.</p>
<p><code>${escaped(fingerprint)}</code></p>
<p><a class="button" href="${CERTIFICATE}">Get the certificate</a></p>
<h2>iPhone and iPad</h2>
<ol>
<li>Tap “Get the certificate” and allow the download.</li>
<li>Open Settings; near the top stands “Profile Downloaded”. Tap it, then “Install”.
${rows('Settings', ['Your name', 'Profile Downloaded', 'Wi-Fi'], 'Profile Downloaded')}</li>
<li>Go to General, About, then all the way down to “Certificate Trust Settings”, and switch on the one called “Crow Shelf of …”.
${rows('Certificate Trust Settings', ['Crow Shelf of your machine   ⬤ on'], 'Crow Shelf of your machine   ⬤ on')}</li>
</ol>
<h2>Android</h2>
<ol>
<li>Tap “Get the certificate” and keep the file.</li>
<li>Open Settings and search for “CA certificate” (under Security, Encryption and credentials, Install a certificate).
${rows('Install a certificate', ['CA certificate', 'VPN and app user certificate', 'Wi-Fi certificate'], 'CA certificate')}</li>
<li>Choose “Install anyway”, then the file. Android will say that the network may be monitored: this certificate can only vouch for
machines in your own network, not for any site elsewhere.</li>
</ol>
<h2>A computer</h2>
<ol>
<li>Get the certificate, then open the browser’s settings and search for “certificates”.</li>
<li>Under “Authorities”, import the file and let it identify websites.
${rows('Certificates', ['Your certificates', 'Authorities', 'Servers'], 'Authorities')}</li>
</ol>
<p>You can also go on without: taking pictures with the device’s own camera works all the same, and the connection is encrypted, but the device
can’t tell whether it talks to the right machine.</p>
<p>To take the trust back, delete the certificate in the same place.</p>`;
}
