// Paints templates in seven shapes and four brands, a picture a template, to be looked at. Templates can be named, and a text: `--text cruel`. `--photos FOLDER` takes other photographs. `--align centre`, `--swapped` and `--plain` turn them.
import { runTool } from './bundled-tool.mjs';
import { runPackages } from './setup.mjs';

await runTool('tests/sheet/sheet.ts', runPackages);
