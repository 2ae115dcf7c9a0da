/** How a database is named to who runs it: its name and where it is, never with whose password. */
export function nameOf(url: string): string {
  const { host, pathname, username } = new URL(url);
  return `database "${decodeURIComponent(pathname.slice(1))}" at ${host} as ${decodeURIComponent(username)}`;
}
