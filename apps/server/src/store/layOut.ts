/** Run by the build: lays an empty database out in a folder, which new data folders begin with. */
import { openPostgres } from './postgres';

const [folder] = process.argv.slice(2);
if (folder === undefined) throw new Error('usage: layOut FOLDER');
await (await openPostgres(folder)).close();
