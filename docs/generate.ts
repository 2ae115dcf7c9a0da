import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { FORMATS, writeSchema } from '../cli/schemaCommand.ts';
import { openApi } from '../contract/openApi.ts';
import { drawLifecycle } from '../core/workflow/drawLifecycle.ts';
import { ROUTES, type Who } from '../contract/routes.ts';
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
who may do it, who never may, what it needs, and what takes it back. The executor, the buttons, the keys and the security
tests read the same tables.
`;
  const parts = LIFECYCLES.map((lifecycle) => {
    const { kind, acts } = lifecycle;
    const rows = Object.entries<ActRule<string>>(acts).map(([act, rule]) => rowOf(act, rule));
    return `## ${kind}

\`\`\`mermaid
${drawLifecycle(lifecycle)}
\`\`\`

| act | by | never | needs | taken back by | event |
|---|---|---|---|---|---|
${rows.join('\n')}
`;
  });
  return [head, ...parts].join('\n');
}

function rowOf(act: string, { ways, never, apart, needs, undoneBy, event }: ActRule<string>): string {
  const who = ways.map(({ roles, as }) =>
    [roles.join(' or '), as.length ? `as ${as.join(' or ')}` : ''].filter(Boolean),
  );
  const by = [...new Set(who.map((w) => w.join(' ') || 'the system, or anybody'))].join('; ');
  const forbidden = [...never, ...(apart ? [`${apart.relation} (${apart.setting})`] : [])].join(', ');
  return `| ${[act, by, forbidden, needs.join(', '), undoneBy ?? '', event].join(' | ')} |`;
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
`;
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
