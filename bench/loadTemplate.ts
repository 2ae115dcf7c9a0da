import setup from '../test/fixtures/templateDatabase.ts';

// A program of its own; see makeTemplate.
await setup();
process.exit(0);
