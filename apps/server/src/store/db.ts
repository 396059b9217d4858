/** What keeps the database from working, in a sentence for people. */
export class DbFailure extends Error {
  constructor(
    readonly kind: 'full' | 'damaged',
    message: string,
  ) {
    super(message);
    this.name = 'DbFailure';
  }
}

/** A statement that the database refused. */
export class SqlError extends Error {
  constructor(
    message: string,
    /** SQLSTATE. */
    readonly code: string,
  ) {
    super(message);
    this.name = 'SqlError';
  }
}

/** What the rest of the server knows of its database: SQL in, rows out. */
export type Row = Record<string, unknown>;

export interface Queries {
  /** One statement with its parameters. */
  query<T extends object = Row>(sql: string, params?: readonly unknown[]): Promise<T[]>;
}

export interface Db extends Queries {
  /** Statements without parameters, one after another. */
  exec(sql: string): Promise<Row[]>;
  /** All of it or nothing. */
  transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T>;
}

export interface OpenDb extends Db {
  close(): Promise<void>;
}
