import { ApiError } from './client.ts';

/** Sends a file with its progress (0 to 1) told on the way; the answer as JSON. Every failure is an ApiError. */
export function upload<T>(path: string, file: File, onProgress: (part: number) => void, options?: unknown): Promise<T> {
  return new Promise((resolve, reject) => {
    const form = new FormData();
    if (options !== undefined) form.append('options', JSON.stringify(options));
    form.append('file', file, file.name || 'pasted picture.png');
    const request = new XMLHttpRequest();
    request.open('POST', `/api${path}`);
    request.responseType = 'json';
    request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
    request.onerror = () =>
      reject(
        new ApiError(0, {
          code: 'unreachable',
          says: 'The connection broke off. The file was not added; add it again.',
        }),
      );
    request.onload = () => {
      const { status, response } = request;
      if (status >= 200 && status < 300 && response) return resolve(response as T);
      reject(
        new ApiError(
          status,
          response?.code
            ? response
            : { code: 'unreadable', says: 'The server gave no readable answer. Add the file again.' },
        ),
      );
    };
    request.send(form);
  });
}
