// Writes docs/exchange.schema.json: the format of packages as JSON Schema, made from the schemas that the server checks by.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureNodeModules, projectRoot } from './setup.mjs';

ensureNodeModules();
const esbuild = await import('esbuild');
const outfile = join(projectRoot, 'dist', 'exchange-schema.mjs');
await esbuild.build({ absWorkingDir: projectRoot, entryPoints: ['src/contract/package-json-schema.ts'], bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', outfile, logLevel: 'warning' });
const { packageJsonSchema } = await import(pathToFileURL(outfile).href);
writeFileSync(join(projectRoot, 'docs', 'exchange.schema.json'), `${JSON.stringify(packageJsonSchema(), null, 1)}\n`);
