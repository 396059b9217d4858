/** A project as it is stored: its text, with what a list of projects says of it. */
import { Invalid } from '@kite/core/check/problem';
import type { Project } from '@kite/core/document/types';
import { ARCHIVE_LIMITS } from '@kite/core/interchange/archive';

export interface Written {
  readonly id: string;
  readonly name: string;
  readonly scenes: number;
  /** JSON. */
  readonly text: string;
  /** Of the text in UTF-8, in bytes. */
  readonly size: number;
}

/** Throws Invalid for a project that weighs more than one may. */
export const writtenOf = (project: Project): Written => {
  const text = JSON.stringify(project);
  const size = Buffer.byteLength(text);
  if (size > ARCHIVE_LIMITS.document) {
    throw new Invalid(
      `the project: would weigh more than the ${ARCHIVE_LIMITS.document / 2 ** 20} MB that a project may. Take something away first.`,
    );
  }
  return { id: project.id, name: project.name, scenes: project.order.length, text, size };
};
