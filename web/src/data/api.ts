import { fileRefSchema, problemSchema, type FileRef, type Problem } from '@eskovan/core/document';
import type { z } from 'zod';

/** The server said no, and why. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message);
    this.name = 'ApiError';
  }
}

/** The server did not answer at all. */
export class OfflineError extends Error {
  constructor() {
    super('The server does not answer. Your changes are kept on this machine and saved as soon as it does.');
    this.name = 'OfflineError';
  }
}

interface RequestOptions<T> {
  schema: z.ZodType<T>;
  body?: unknown;
  signal?: AbortSignal;
  /** The answer to this very request, where it was sent before. */
  reply?: Promise<Response>;
}

/** One request whose reply is checked; no content is null. @throws ApiError, OfflineError */
export async function request<T>(
  method: string,
  path: string,
  { schema, body, signal, reply }: RequestOptions<T>,
): Promise<T> {
  let response: Response;
  try {
    response = await (reply ??
      fetch(path, {
        method,
        ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
        ...(signal ? { signal } : {}),
      }));
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new OfflineError();
  }
  if (!response.ok) throw new ApiError(response.status, await readProblem(response));
  return schema.parse(response.status === 204 ? null : await response.json());
}

async function readProblem(response: Response): Promise<Problem> {
  const parsed = problemSchema.safeParse(await response.json().catch(() => null));
  return parsed.success
    ? parsed.data
    : {
        code: `http-${response.status}`,
        message: `The server answered with ${response.status} ${response.statusText}.`,
      };
}

export const fileUrl = (sha256: string) => `/api/files/${sha256}`;

/** Bytes of a kept file. @throws ApiError, OfflineError */
export async function fetchFile(sha256: string): Promise<ArrayBuffer> {
  const response = await fetch(fileUrl(sha256)).catch(() => {
    throw new OfflineError();
  });
  if (!response.ok) throw new ApiError(response.status, await readProblem(response));
  return response.arrayBuffer();
}

/** Sends a file; `onProgress` is told the fraction sent, 0…1. */
export function uploadFile(
  body: Blob,
  mediaType: string,
  { onProgress, signal }: { onProgress?: (fraction: number) => void; signal?: AbortSignal } = {},
): Promise<FileRef> {
  return new Promise((resolve, reject) => {
    // fetch cannot tell how much of a body it has sent.
    const xhr = new XMLHttpRequest();
    xhr.open('POST', '/api/files');
    xhr.setRequestHeader('Content-Type', mediaType);
    xhr.upload.onprogress = (event) => event.lengthComputable && onProgress?.(event.loaded / event.total);
    xhr.onerror = () => reject(new OfflineError());
    xhr.onabort = () =>
      reject(signal?.reason instanceof Error ? signal.reason : new DOMException('Stopped', 'AbortError'));
    xhr.onload = () => {
      const json: unknown = safeJson(xhr.responseText);
      if (xhr.status >= 200 && xhr.status < 300) resolve(fileRefSchema.parse(json));
      else {
        const problem = problemSchema.safeParse(json);
        reject(
          new ApiError(
            xhr.status,
            problem.success ? problem.data : { code: `http-${xhr.status}`, message: 'The file was not taken.' },
          ),
        );
      }
    };
    signal?.addEventListener('abort', () => xhr.abort(), { once: true });
    xhr.send(body);
  });
}

/** What the text says as JSON, or null. */
export function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
