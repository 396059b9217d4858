/** Imported files: read, checked and kept by their SHA-256. */
import { createHash } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { LIMITS } from '@kite/core/document/limits';
import { asName } from '@kite/core/document/text';
import { Invalid } from '@kite/core/check/problem';
import { type Asset, type FontAsset, type PictureAsset, PICTURE_TYPES } from '@kite/core/document/types';
import type { AssetFiles } from '@kite/core/interchange/archive';
import { readFont } from '@kite/core/type/harfbuzz';
import { toOpenType } from '@kite/render/woff';
import { loadImage } from '@napi-rs/canvas';
import { imageSize } from 'image-size';
import { Refused } from '../errors';
import type { Db } from './db';
import type { FileStore } from './files';
import { isWhole } from './pictures';
import { newId } from './ids';

/** What is known of a file, whatever a project calls it. */
type Facts<A extends Asset> = Omit<A, 'id' | 'name'>;
type AnyFacts = Facts<PictureAsset> | Facts<FontAsset>;

const MOST_BYTES = 50 * 2 ** 20;

const TYPES: Readonly<Record<string, PictureAsset['type']>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
};

const shaOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const millions = (pixels: number) => `${Math.round(pixels / 1e6)} megapixels`;

/** Measured from its head before it is decoded, so that a huge one costs nothing. */
const pictureFacts = async (bytes: Uint8Array, name: string): Promise<Omit<Facts<PictureAsset>, 'sha' | 'bytes'>> => {
  let size: ReturnType<typeof imageSize>;
  try {
    size = imageSize(bytes);
  } catch {
    throw new Invalid(`“${name}” is not a PNG, JPEG, WebP or GIF picture, or a font this can read.`, 'file');
  }
  const type = TYPES[size.type ?? ''];
  if (!type)
    throw new Invalid(
      `“${name}” is a ${size.type ?? 'file'}; PNG, JPEG, WebP and GIF pictures can be imported.`,
      'file',
    );
  const { width, height } = size;
  if (width * height > LIMITS.picturePixels || Math.max(width, height) > LIMITS.pictureSide) {
    throw new Invalid(
      `“${name}” is ${width} × ${height}, ${millions(width * height)}; pictures of up to ${millions(LIMITS.picturePixels)} and ${LIMITS.pictureSide} a side can be imported. Make it smaller first.`,
      'file',
    );
  }
  if (!isWhole(type, bytes)) {
    throw new Invalid(`“${name}” is cut short: its end is missing. Copy or download it again.`, 'file');
  }
  try {
    const image = await loadImage(bytes);
    if (image.width < 1 || image.height < 1) throw new RangeError('empty');
    return { kind: 'picture', type, width: image.width, height: image.height };
  } catch {
    throw new Invalid(`“${name}” is damaged: it says it is ${width} × ${height} but cannot be read.`, 'file');
  }
};

const isFont = (bytes: Uint8Array): boolean =>
  ['wOFF', 'wOF2', '\0\x01\0\0', 'OTTO', 'true'].includes(String.fromCharCode(...bytes.subarray(0, 4)));

const fontFacts = (bytes: Uint8Array, name: string): Omit<Facts<FontAsset>, 'sha' | 'bytes'> => {
  try {
    return { kind: 'font', ...readFont(bytes) };
  } catch {
    throw new Invalid(`“${name}” is not a font that can be read.`, 'file');
  }
};

export class AssetStore {
  constructor(
    private readonly db: Db,
    private readonly files: FileStore,
  ) {}

  private async keep(bytes: Uint8Array, facts: AnyFacts): Promise<void> {
    const path = this.files.workFile(newId());
    await writeFile(path, bytes);
    await this.files.take(path);
    await this.db.query(
      'insert into assets (sha, kind, facts) values ($1, $2, $3::jsonb) on conflict (sha) do nothing',
      [facts.sha, facts.kind, JSON.stringify(facts)],
    );
  }

  /** Takes a file in; Invalid with what is wrong with it. Fonts are kept as OpenType. */
  async add(bytes: Uint8Array, name: string): Promise<Asset> {
    if (bytes.length === 0) throw new Invalid(`“${name}” is empty.`, 'file');
    if (bytes.length > MOST_BYTES) {
      const size = Math.round(bytes.length / 2 ** 20);
      throw new Invalid(`“${name}” is ${size} MB; files of up to ${MOST_BYTES / 2 ** 20} MB can be imported.`, 'file');
    }
    let kept = bytes;
    let own: Omit<Facts<PictureAsset>, 'sha' | 'bytes'> | Omit<Facts<FontAsset>, 'sha' | 'bytes'>;
    if (isFont(bytes)) {
      kept = await toOpenType(bytes).catch(() => {
        throw new Invalid(`“${name}” is not a font that can be read.`, 'file');
      });
      own = fontFacts(kept, name);
    } else own = await pictureFacts(bytes, name);
    const facts = { ...own, sha: shaOf(kept), bytes: kept.length } as AnyFacts;
    await this.keep(kept, facts);
    return { id: newId(), name: asName(name.trim(), 'Untitled', LIMITS.name), ...facts } as Asset;
  }

  /** Takes in the files of an archive that its project names; each must be what the project says it is. */
  async addAll(assets: readonly Asset[], files: AssetFiles): Promise<void> {
    for (const asset of assets) {
      const bytes = files.get(asset.sha);
      if (!bytes) {
        if (await this.has(asset.sha)) continue;
        throw new Invalid(`the archive: the file of “${asset.name}” is missing`);
      }
      if (shaOf(bytes) !== asset.sha) throw new Invalid(`the archive: the file of “${asset.name}” is damaged`);
      const found = await this.add(bytes, asset.name);
      if (found.kind !== asset.kind) throw new Invalid(`the archive: the file of “${asset.name}” is no ${asset.kind}`);
    }
  }

  private async has(sha: string): Promise<boolean> {
    return (await this.db.query('select 1 as one from assets where sha = $1', [sha])).length > 0;
  }

  /** The type to send a file with; not_found where there is none. */
  async typeOf(sha: string): Promise<string> {
    const [row] = await this.db.query<{ facts: AnyFacts }>('select facts from assets where sha = $1', [sha]);
    if (!row) throw new Refused('not_found', 'This file is not here.');
    const type = row.facts.kind === 'picture' ? row.facts.type : 'font/otf';
    return [...PICTURE_TYPES, 'font/otf'].includes(type) ? type : 'application/octet-stream';
  }
}
