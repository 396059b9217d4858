import { resolve } from 'node:path';
import { parseArgs } from 'node:util';

export interface Config {
  readonly host: string;
  readonly port: number;
  /** Whether the port was asked for, so that another would be wrong. */
  readonly portAsked: boolean;
  readonly data: string;
  /** Names that it answers to besides its own. */
  readonly names: readonly string[];
  /** Whether a new access key is to be made. */
  readonly newKey: boolean;
  /** A folder that is watched for archives to import. */
  readonly watched: string | null;
  /** Seconds after which a render that makes no progress is ended. */
  readonly stalledAfter: number;
}

const DEFAULT_PORT = 4820;
const DEFAULT_STALLED_AFTER = 600;

export class BadConfig extends Error {}

const OPTIONS = {
  port: { type: 'string' },
  host: { type: 'string' },
  data: { type: 'string' },
  'allow-host': { type: 'string', multiple: true },
  'new-key': { type: 'boolean' },
  'stalled-after': { type: 'string' },
  watch: { type: 'string' },
} as const;

const flags = (args: readonly string[]) => {
  try {
    return parseArgs({ args: [...args], options: OPTIONS }).values;
  } catch (error) {
    throw new BadConfig((error as Error).message);
  }
};

/** From flags first, then the environment. */
export const readConfig = (args: readonly string[], env: NodeJS.ProcessEnv, root: string): Config => {
  const values = flags(args);
  const asked = values.port ?? env.KITE_PORT;
  const port = asked === undefined || asked === '' ? DEFAULT_PORT : Number(asked);
  if (!Number.isInteger(port) || port < 0 || port > 65_535) {
    throw new BadConfig(`--port: got "${asked}", wanted a whole number from 0 to 65535`);
  }
  const stalledAfter = Number(values['stalled-after'] ?? env.KITE_STALLED_AFTER ?? DEFAULT_STALLED_AFTER);
  if (!(stalledAfter >= 1 && stalledAfter <= 86_400)) {
    throw new BadConfig(
      `--stalled-after: got "${values['stalled-after'] ?? env.KITE_STALLED_AFTER}", wanted seconds from 1 to 86400`,
    );
  }
  const watched = values.watch ?? env.KITE_WATCH;
  return {
    host: values.host ?? env.KITE_HOST ?? '127.0.0.1',
    port,
    portAsked: asked !== undefined && asked !== '',
    data: resolve(root, values.data ?? env.KITE_DATA ?? 'data'),
    names: values['allow-host'] ?? env.KITE_ALLOW_HOST?.split(',').filter(Boolean) ?? [],
    newKey: values['new-key'] ?? false,
    watched: watched ? resolve(root, watched) : null,
    stalledAfter,
  };
};
