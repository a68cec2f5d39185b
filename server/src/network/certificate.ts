import { createPrivateKey, X509Certificate } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';
import { DiskProblem } from '../disk/disk-problem.ts';
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
  const key = readOr(keyFile);
  // a certificate without its key, or a damaged one, is made anew: browsers ask once more
  if (kept !== null && key !== null && isGood(kept, key, names, now)) {
    return { key, cert: kept, fingerprint: fingerprintOf(kept), isNew: false };
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
  try {
    mkdirSync(place, { recursive: true, mode: 0o700 });
    writeFileSync(keyFile, made.private, { mode: 0o600 });
    writeFileSync(certFile, made.cert, { mode: 0o600 });
  } catch (error) {
    throw DiskProblem.of(error, place);
  }
  return { key: made.private, cert: made.cert, fingerprint: fingerprintOf(made.cert), isNew: true };
}

function isGood(cert: string, key: string, names: readonly string[], now: Date): boolean {
  let read: X509Certificate;
  try {
    read = new X509Certificate(cert);
    if (!read.checkPrivateKey(createPrivateKey(key))) return false;
  } catch {
    return false;
  }
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
