// Measures the figures of docs/figures.md, each as a ratio or a percentile within this one run.
import { runTool } from './bundled-tool.mjs';
import { runPackages, testPackages } from './setup.mjs';

await runTool('tests/bench/bench.ts', [...runPackages, ...testPackages]);
