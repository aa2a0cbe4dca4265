import { X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { hostname, networkInterfaces } from 'node:os'
import { join } from 'node:path'
import { generate } from 'selfsigned'
import { writeWhole } from '../db/mariadb.ts'

/** Files of a certificate that a local authority of one's own signed. */
export interface OwnCertificate {
  readonly cert: string
  readonly key: string
  /** What to do so that phones trust it, one sentence each. */
  readonly steps: readonly string[]
}

const DAY_MS = 86_400_000
/** Validity: the authority's ten years; the server's below what browsers take, and renewed a month before it ends. */
const AUTHORITY_DAYS = 3650
const SERVER_DAYS = 390
const RENEW_DAYS = 30

/**
 * A certificate for this machine's names and addresses by an authority made once in `folder`, whose key stays there and goes
 * into no backup. It is renewed at a start when it runs out soon or lacks a name.
 */
export async function ownAuthority(folder: string, host: string, now = new Date()): Promise<OwnCertificate> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = (name: string): string => join(folder, name)
  const names = namesOf(host)
  if (!existsSync(file('authority.crt')) || !existsSync(file('authority.key'))) {
    const made = await generate([{ name: 'commonName', value: `Kapelle on ${hostname()}` }], {
      ...common(now, AUTHORITY_DAYS),
      extensions: [
        { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
        { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
      ],
    })
    writeWhole(file('authority.key'), made.private)
    writeWhole(file('authority.crt'), made.cert)
  }
  const ca = {
    key: readFileSync(file('authority.key'), 'utf8'),
    cert: readFileSync(file('authority.crt'), 'utf8'),
  }
  if (!stillGood(file('server.crt'), names, ca.cert, now)) {
    const made = await generate([{ name: 'commonName', value: names[0] ?? hostname() }], {
      ...common(now, SERVER_DAYS),
      ca,
      extensions: [
        { name: 'basicConstraints', cA: false, critical: true },
        { name: 'keyUsage', digitalSignature: true, critical: true },
        { name: 'extKeyUsage', serverAuth: true },
        {
          name: 'subjectAltName',
          altNames: names.map((name) => (isAddress(name) ? { type: 7, ip: name } : { type: 2, value: name })),
        },
      ],
    })
    writeWhole(file('server.key'), made.private)
    writeWhole(file('server.crt'), made.cert)
  }
  return {
    cert: file('server.crt'),
    key: file('server.key'),
    steps: [
      `Devices must trust ${file('authority.crt')} once; its SHA-256 is`,
      new X509Certificate(ca.cert).fingerprint256,
      'Phone: copy that file onto it (by cable, never by a link from a stranger), open it, and install it as a certificate',
      'authority in the security settings; some phones ask for a second consent under certificate trust. Computer: import it',
      'into the browser’s or the system’s list of authorities. Compare the SHA-256 before you agree. Who has',
      `${file('authority.key')} can pass for this server: leave it where it is.`,
    ],
  }
}

function common(now: Date, days: number) {
  return {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    // A device's clock may be a little behind this machine's.
    notBeforeDate: new Date(now.getTime() - DAY_MS),
    notAfterDate: new Date(now.getTime() + days * DAY_MS),
  } as const
}

/** Names and addresses under which this machine may be reached. */
function namesOf(host: string): string[] {
  const addresses = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((one) => !one.address.startsWith('fe80:'))
    .map((one) => one.address)
  const wild = ['0.0.0.0', '::'].includes(host)
  return [
    ...new Set([
      hostname(),
      `${hostname()}.local`,
      'localhost',
      ...(wild ? [] : [host]),
      '127.0.0.1',
      ...addresses,
    ]),
  ]
}

function isAddress(name: string): boolean {
  return /^[\d.]+$/.test(name) || name.includes(':')
}

/** Whether a certificate holds for a month more, for all these names, and by this authority. */
function stillGood(file: string, names: readonly string[], authority: string, now: Date): boolean {
  if (!existsSync(file)) return false
  try {
    const cert = new X509Certificate(readFileSync(file))
    const until = Date.parse(cert.validTo)
    return (
      until - now.getTime() > RENEW_DAYS * DAY_MS &&
      cert.checkIssued(new X509Certificate(authority)) &&
      names.every((name) => (isAddress(name) ? cert.checkIP(name) : cert.checkHost(name)) !== undefined)
    )
  } catch {
    return false
  }
}
