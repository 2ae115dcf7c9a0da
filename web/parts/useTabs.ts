import { useEffect, useEffectEvent, useRef } from 'react';

interface Told {
  record: string;
  revision: number;
}

/** Tells other tabs of this browser at which revision a record is, and hears it from them. */
export function useTabs(record: string, revision: number, onNewer: () => void): void {
  const tabs = useRef<BroadcastChannel>(null);
  const hear = useEffectEvent((told: Told) => {
    if (told.record === record && told.revision > revision) onNewer();
  });
  useEffect(() => {
    const channel = new BroadcastChannel('ebbet-records');
    channel.onmessage = ({ data }: MessageEvent<Told>) => hear(data);
    tabs.current = channel;
    return () => channel.close();
  }, []);
  useEffect(() => tabs.current?.postMessage({ record, revision } satisfies Told), [record, revision]);
}
