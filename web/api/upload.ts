import type { z } from 'zod';
import { ApiError, readAnswer } from './client.ts';

/** Sends a file with its progress (0 to 1) told on the way; the answer as the contract describes it. Every failure is an ApiError. */
export function upload<T extends z.ZodType>(
  path: string,
  schema: T,
  file: File,
  onProgress: (part: number) => void,
  options?: unknown,
): Promise<z.infer<T>> {
  return new Promise((resolve, reject) => {
    const form = new FormData();
    if (options !== undefined) form.append('options', JSON.stringify(options));
    form.append('file', file, file.name || 'pasted picture.png');
    const request = new XMLHttpRequest();
    request.open('POST', `/api${path}`);
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
