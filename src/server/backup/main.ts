import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { keepFilesPrivate } from '../secrets/keep-files-private.ts';
import { readSettings } from '../settings.ts';
import { BackupError, backUp, restore } from './backup.ts';

/** The command line's `backup FOLDER` and `restore FOLDER`. */
async function main([command, folder]: readonly string[]): Promise<number> {
  const { dataFolder, keyFile } = readSettings(process.env);
  const say = (text: string): void => void process.stdout.write(`${text}\n`);
  if ((command !== 'backup' && command !== 'restore') || !folder) {
    say('Usage: npm run backup -- FOLDER, or npm run restore -- FOLDER. The data folder is CONFETTI_DATA.');
    return 2;
  }
  keepFilesPrivate();
  try {
    if (command === 'backup') {
      const { files } = await backUp(dataFolder, resolve(folder), Date.now());
      say(`The database and ${files} files are in ${resolve(folder)}. Keep ${keyFile} as well, elsewhere: without it every channel has to be connected again.`);
    } else {
      await restore(resolve(folder), dataFolder);
      say(`${dataFolder} is as it was when the backup was made.${existsSync(keyFile) ? '' : ` Put the key that belongs to it at ${keyFile} before you start.`}`);
    }
    return 0;
  } catch (error) {
    if (!(error instanceof BackupError)) throw error;
    say(error.message);
    return 1;
  }
}

process.exitCode = await main(process.argv.slice(2));
