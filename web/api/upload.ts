import type { z } from 'zod';
import { ApiError, personHeader, readAnswer } from './client.ts';
import { KEY_HEADER } from '../../contract/route.ts';
import { once } from './once.ts';

/** Sends a file with its progress (0 to 1) told on the way; the answer as the contract describes it. Every failure is an ApiError. */
export function upload<T extends z.ZodType>(
  path: string,
  schema: T,
  file: File,
  onProgress: (part: number) => void,
  options?: unknown,
): Promise<z.infer<T>> {
  const what = `${path} ${file.name} ${file.size} ${file.lastModified} ${JSON.stringify(options)}`;
  return once(what, (key) => sendFile(path, schema, file, { key, onProgress, options }));
}

interface Sending {
  key: string;
  onProgress: (part: number) => void;
  options: unknown;
}

function sendFile<T extends z.ZodType>(
  path: string,
  schema: T,
  file: File,
  { key, onProgress, options }: Sending,
): Promise<z.infer<T>> {
  return new Promise((resolve, reject) => {
    const form = new FormData();
    if (options !== undefined) form.append('options', JSON.stringify(options));
    form.append('file', file, file.name || 'pasted picture.png');
    const request = new XMLHttpRequest();
    request.open('POST', `/api${path}`);
    for (const [name, value] of Object.entries({ ...personHeader(path), [KEY_HEADER]: key }))
      request.setRequestHeader(name, value);
    request.responseType = 'json';
    request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
    request.onerror = () => reject(brokenOff());
    request.onload = () => {
      const { status, response } = request;
      try {
        resolve(readAnswer(status, status >= 200 && status < 300, response, schema));
      } catch (error) {
        reject(error);
      }
    };
    request.send(form);
  });
}

const brokenOff = () =>
  new ApiError(0, { code: 'unreachable', says: 'The connection broke off. The file was not added; add it again.' });
