import type { ComponentType } from 'react';
import useSWRImmutable from 'swr/immutable';
import { ApiError } from '../api/client.ts';
import { Loading, Trouble } from './Notices.tsx';

interface Module<Props> {
  default: ComponentType<Props>;
}

/**
 * A part of the application that is loaded when it is first wanted; `name` is its own. What could not be loaded is tried again
 * by itself and by a button, and says why: a lazy component of React's would remember its failure until the page is left.
 */
export function page<Props extends object>(
  name: string,
  load: () => Promise<Module<Props>>,
  shape: 'page' | 'rows' | 'sheet' | null = 'rows',
): ComponentType<Props> {
  const fetcher = () => load().catch(() => Promise.reject(NOT_LOADED));
  return function Page(props: Props) {
    const { data, error, mutate } = useSWRImmutable<Module<Props>>(`page ${name}`, fetcher);
    if (data) return <data.default {...props} />;
    if (shape === null) return null;
    return error ? <Trouble error={error} retry={() => void again(mutate)} /> : <Loading shape={shape} />;
  };
}

const NOT_LOADED = new ApiError(0, {
  code: 'unreachable',
  says: 'This page could not be loaded, since the server does not answer. What you typed is kept. Try again when the connection is back.',
});

/** Tries again; where the server answers and still does not have it, there is a newer application, which is loaded whole. */
async function again(mutate: () => Promise<unknown>): Promise<void> {
  const loaded = await mutate().catch(() => undefined);
  if (loaded) return;
  const answers = await fetch('/', { method: 'HEAD' }).then(
    (response) => response.ok,
    () => false,
  );
  if (answers) window.location.reload();
}
