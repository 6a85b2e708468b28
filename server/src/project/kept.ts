import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { Request, Response } from 'express';

interface Made {
  /** Number of the edit up to which it is true. */
  version: number;
  text: string;
}

/** JSON text ready to be sent. */
export interface KeptText {
  version: number;
  text: Buffer;
  zipped: Buffer;
  tag: string;
}

const zip = promisify(gzip);

/** Texts that are made once per version and asked for often. Two who ask at the same time wait for one making. */
export class Kept {
  private readonly made = new Map<string, KeptText>();
  private readonly making = new Map<string, Promise<KeptText>>();

  constructor(private readonly most: number) {}

  /** @param version the newest there is: what is kept of an older one is made anew */
  async get(key: string, version: number, make: () => Promise<Made>): Promise<KeptText> {
    const known = this.made.get(key);
    if (known && known.version >= version) {
      this.keep(key, known);
      return known;
    }
    const name = `${key}@${version}`;
    let under = this.making.get(name);
    if (!under) {
      under = make()
        .then(finish)
        .finally(() => this.making.delete(name));
      this.making.set(name, under);
    }
    const made = await under;
    this.keep(key, made);
    return made;
  }

  /** The one used last goes last. */
  private keep(key: string, made: KeptText): void {
    this.made.delete(key);
    this.made.set(key, made);
    if (this.made.size > this.most) this.made.delete(this.made.keys().next().value!);
  }
}

async function finish({ version, text }: Made): Promise<KeptText> {
  const bytes = Buffer.from(text);
  const hash = createHash('sha1').update(bytes).digest('base64url');
  return { version, text: bytes, zipped: await zip(bytes, { level: 4 }), tag: `W/"${hash}"` };
}

/** Sends a kept text; a browser whose copy is still true is told only that. */
export function sendKept(request: Request, response: Response, { text, zipped, tag }: KeptText): void {
  response.setHeader('Cache-Control', 'private, no-cache');
  response.setHeader('ETag', tag);
  response.setHeader('Vary', 'Accept-Encoding');
  if (request.headers['if-none-match'] === tag) {
    response.status(304).end();
    return;
  }
  response.setHeader('Content-Type', 'application/json; charset=utf-8');
  const small = request.acceptsEncodings('gzip') === 'gzip';
  if (small) response.setHeader('Content-Encoding', 'gzip');
  const bytes = small ? zipped : text;
  response.setHeader('Content-Length', bytes.length);
  response.end(request.method === 'HEAD' ? undefined : bytes);
}
