import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { FORMATS, writeSchema } from '../cli/schemaCommand.ts';
import { openApi } from '../contract/openApi.ts';
import { drawLifecycle } from '../core/workflow/drawLifecycle.ts';
import type { RouteContract, Who } from '../contract/route.ts';
import { ROUTES } from '../contract/routes.ts';
import { audienceFor, VIEWERS, type Viewer } from '../core/workflow/viewers.ts';
import { CLAIM_STATES } from '../core/workflow/lifecycles/claim.ts';
import { ROLES, type ActRule, type Role } from '../core/workflow/lifecycle.types.ts';
import { LIFECYCLES } from '../core/workflow/lifecycles/all.ts';

/**
 * npm run generate: writes what of the documents comes from code. With --check it writes nothing and fails where a file is
 * no longer what the code says; the lint step does that.
 */
const FILES: Record<string, () => string> = {
  'lifecycles.md': writeLifecycles,
  'access.md': writeAccess,
  ...Object.fromEntries(
    FORMATS.map((format) => [`schemas/${format.replace('/', '-')}.json`, () => `${writeSchema(format)}\n`]),
  ),
  'openapi.json': () => `${JSON.stringify(openApi(), null, 1)}\n`,
};

function writeLifecycles(): string {
  const head = `# What may happen to a record

Made from the tables in \`core/workflow/lifecycles/\` by \`npm run generate\`. Each arrow is an act; the table under it says
who may do it, who never may, what it needs, what takes it back, and who hears of it (of those who decide, whom it asks anew). The executor, the buttons, the keys and the security
tests read the same tables.
`;
  const parts = LIFECYCLES.map((lifecycle) => {
    const { kind, acts } = lifecycle;
    const rows = Object.entries<ActRule<string>>(acts).map(([act, rule]) => rowOf(act, rule));
    return `## ${kind}

\`\`\`mermaid
${drawLifecycle(lifecycle)}
\`\`\`

| act | by | never | needs | taken back by | event | heard by |
|---|---|---|---|---|---|---|
${rows.join('\n')}
`;
  });
  return [head, ...parts].join('\n');
}

function rowOf(act: string, { ways, never, apart, needs, undoneBy, event, tells }: ActRule<string>): string {
  const who = ways.map(({ roles, as }) =>
    [roles.join(' or '), as.length ? `as ${as.join(' or ')}` : ''].filter(Boolean),
  );
  const by = [...new Set(who.map((w) => w.join(' ') || 'the system, or anybody'))].join('; ');
  const forbidden = [...never, ...(apart ? [`${apart.relation} (${apart.setting})`] : [])].join(', ');
  const heard = tells.map((t) => (typeof t === 'string' ? t : `who left “${t.did}”`)).join(', ');
  return `| ${[act, by, forbidden, needs.join(', '), undoneBy ?? '', event, heard].join(' | ')} |`;
}

function writeAccess(): string {
  const cell = (who: Who, role: Role) => (typeof who === 'string' || who.includes(role) ? '●' : '');
  const rows = ROUTES.map(({ method, path, who }) => {
    const first = typeof who === 'string' ? who : '';
    return `| ${[`\`${method.toUpperCase()} ${path}\``, first, ...ROLES.map((role) => cell(who, role))].join(' | ')} |`;
  });
  return `# Who passes at which address

Made from \`contract/routes.ts\` by \`npm run generate\`. The server lets through whom this table names
(\`server/platform/http/admit.ts\`) before any feature sees the request, and a test tries every address with every role
alone. What somebody may do with the record they ask for is judged where it is locked, by [its lifecycle](lifecycles.md);
what they see of it is the view of their audience.

| address under /api | open to | ${ROLES.join(' | ')} |
|---|---|${ROLES.map(() => '---').join('|')}|
${rows.join('\n')}

## What one is to the record

Of those, an act is refused to who is not what it needs, and to who is what it forbids. A test tries every act on a claim by
somebody who holds every role and is one of these to it.

| address under /api | act | only as | never as | one setting forbids |
|---|---|---|---|---|
${ROUTES.filter((r) => r.does)
  .map(writeActAccess)
  .join('\n')}

## Who sees a claim

By what one is to it and by its state; nobody else learns that there is one. A test tries each over HTTP, with the claim's
receipts and journal.

| one is | ${CLAIM_STATES.join(' | ')} |
|---|${CLAIM_STATES.map(() => '---').join('|')}|
${VIEWERS.map(writeViewer).join('\n')}
`;
}

function writeActAccess({ method, path, does }: RouteContract): string {
  const { kind, act, rule } = does!;
  const as = rule.ways.some((w) => w.as.length === 0) ? [] : [...new Set(rule.ways.flatMap((w) => w.as))];
  const apart = rule.apart ? `${rule.apart.relation} (${rule.apart.setting})` : '';
  const cells = [`\`${method.toUpperCase()} ${path}\``, `${kind}: ${act}`, as.join(', '), rule.never.join(', '), apart];
  return `| ${cells.join(' | ')} |`;
}

function writeViewer(viewer: Viewer): string {
  const cells = CLAIM_STATES.map((state) => audienceFor(viewer, state) ?? '');
  return `| ${viewer.name} | ${cells.join(' | ')} |`;
}

const check = process.argv.includes('--check');
for (const [name, write] of Object.entries(FILES)) {
  const path = fileURLToPath(new URL(name, import.meta.url));
  const text = write();
  if (!check) writeFileSync(path, text);
  else if (readFileSync(path, 'utf8') !== text) {
    process.stderr.write(`docs/${name} is not what the code says; run npm run generate\n`);
    process.exitCode = 1;
  }
}
