/** What the files of a delivery are called: a pattern with parts in braces. */

import type { Delivery, Project, Scene, Version } from '../document/types';
import type { RenderPlan } from './types';

/** What stands in braces, by what it is called there. */
export interface NameFacts {
  readonly project: string;
  readonly scene: string;
  readonly delivery: string;
  /** In pixels. */
  readonly size: string;
  /** The name of the version that it shows; empty for the project as it is. */
  readonly version: string;
  /** How often the delivery was asked for, this time included. */
  readonly take: string;
  /** As 2026-11-27. */
  readonly date: string;
}

/** A day as it is where the program runs: what it is called in a name has no time. */
const dayOf = (time: Date): string => {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`;
};

interface Named {
  readonly project: Pick<Project, 'name'>;
  readonly scene: Pick<Scene, 'name'>;
  /** The scene's name stands for it where there is none. */
  readonly delivery: Pick<Delivery, 'name'> | null;
  readonly plan: Pick<RenderPlan, 'width' | 'height'>;
  /** null for the project as it is. */
  readonly version: Pick<Version, 'name'> | null;
  readonly take: number;
  readonly time: Date;
}

/** What stands in braces for a file. */
export const nameFacts = ({ project, scene, delivery, plan, version, take, time }: Named): NameFacts => ({
  project: project.name,
  scene: scene.name,
  delivery: (delivery ?? scene).name,
  size: `${plan.width}x${plan.height}`,
  version: version?.name ?? '',
  take: String(take),
  date: dayOf(time),
});

export const NAME_PARTS: readonly (keyof NameFacts)[] = [
  'project',
  'scene',
  'delivery',
  'size',
  'version',
  'take',
  'date',
];

export const DEFAULT_NAME = '{project}-{delivery}-{size}';

/** A pattern's parts that there are not. */
export const strangeParts = (pattern: string): string[] =>
  [...pattern.matchAll(/\{([^{}]*)\}/g)]
    .map(([, part]) => part as string)
    .filter((part) => !(NAME_PARTS as readonly string[]).includes(part));

/** What file systems of any kind take: no separators, no spaces, not too long. */
export const asFileName = (text: string): string =>
  text
    .normalize('NFC')
    .replace(/[\\/:*?"<>|\u0000-\u001f]+/g, ' ')
    .trim()
    .replace(/\s+/g, '-')
    .replace(/^\.+/, '')
    .slice(0, 120) || 'untitled';

const VERSION = '{version}';

/** A version's files have its name, and what has no version no gap for it. */
const patternFor = (pattern: string, { version }: NameFacts): string => {
  if (version === '') return pattern.replace(/[-_. ]?\{version\}/g, '');
  return pattern.includes(VERSION) ? pattern : `${pattern}-${VERSION}`;
};

/** A file's name without its extension. */
export const fileNameOf = (pattern: string, facts: NameFacts): string =>
  asFileName(
    patternFor(pattern, facts).replace(/\{([^{}]*)\}/g, (whole, part: string) =>
      Object.hasOwn(facts, part) ? facts[part as keyof NameFacts] : whole,
    ),
  );

/** Names that are all different: one that is taken gets a number. */
export const eachOnce = (names: readonly string[]): string[] => {
  const taken = new Set<string>();
  return names.map((name) => {
    const [, stem = name, extension = ''] = /^(.*?)(\.[a-z0-9]+)?$/i.exec(name) ?? [];
    let own = name;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${stem}-${n}${extension}`;
    taken.add(own.toLowerCase());
    return own;
  });
};
