import { X509Certificate } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';
import { generate, type SubjectAltNameEntry } from 'selfsigned';

export interface Certificate {
  readonly key: string;
  readonly cert: string;
  /** SHA-256, as a browser shows it */
  readonly fingerprint: string;
  readonly isNew: boolean;
}

/** Browsers take none that is good for longer. */
const DAYS = 390;
const SOON_ms = 14 * 24 * 3600 * 1000;

/** The certificate of a data folder for some names: made at the first start, and again when it runs out or a name is new. */
export async function certificateIn(folder: string, names: readonly string[], now: Date): Promise<Certificate> {
  const place = join(folder, 'network');
  const [keyFile, certFile] = [join(place, 'key.pem'), join(place, 'certificate.pem')];
  const kept = readOr(certFile);
  if (kept !== null && isGood(kept, names, now)) {
    return { key: readFileSync(keyFile, 'utf8'), cert: kept, fingerprint: fingerprintOf(kept), isNew: false };
  }
  const altNames = names.map((name): SubjectAltNameEntry => {
    const bare = name.replace(/^\[|\]$/g, '');
    return isIP(bare) ? { type: 7, ip: bare } : { type: 2, value: bare };
  });
  const made = await generate([{ name: 'commonName', value: 'Nibrel workshop' }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    notBeforeDate: new Date(now.getTime() - 3600 * 1000),
    notAfterDate: new Date(now.getTime() + DAYS * 24 * 3600 * 1000),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'subjectAltName', altNames },
    ],
  });
  mkdirSync(place, { recursive: true, mode: 0o700 });
  writeFileSync(keyFile, made.private, { mode: 0o600 });
  writeFileSync(certFile, made.cert);
  return { key: made.private, cert: made.cert, fingerprint: fingerprintOf(made.cert), isNew: true };
}

function isGood(cert: string, names: readonly string[], now: Date): boolean {
  const read = new X509Certificate(cert);
  const covers = (name: string) => {
    const bare = name.replace(/^\[|\]$/g, '');
    return (isIP(bare) ? read.checkIP(bare) : read.checkHost(bare)) !== undefined;
  };
  return Date.parse(read.validTo) - now.getTime() > SOON_ms && names.every(covers);
}

function fingerprintOf(cert: string): string {
  return new X509Certificate(cert).fingerprint256;
}

function readOr(file: string): string | null {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return null;
  }
}
