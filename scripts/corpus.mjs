// Paints every content in every template, placement and brand, and measures the pixels. Templates can be named.
import { runTool } from './bundled-tool.mjs';
import { runPackages } from './setup.mjs';

await runTool('tests/corpus/corpus.ts', runPackages);
