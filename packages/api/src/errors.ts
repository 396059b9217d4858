/** What the server refuses, by code: the status, and when. */
export const CODES = {
  invalid: { status: 400, when: 'What was sent does not fit; `field` says where.' },
  locked: { status: 401, when: 'The server listens beyond its machine, and the access key is missing.' },
  foreign: { status: 403, when: 'The request comes from another site, or names a host that this server is not.' },
  not_found: { status: 404, when: 'There is nothing under this id or address.' },
  stale: { status: 409, when: 'The project was changed elsewhere; `done` names the saves that are here already.' },
  not_ready: { status: 409, when: 'The render is not at a point where this can be done.' },
  too_large: { status: 413, when: 'More bytes than the server takes.' },
  out_of_range: { status: 416, when: 'A byte range that begins behind the end of the file.' },
  too_often: { status: 429, when: 'The access key was tried too often.' },
  internal: { status: 500, when: 'A fault of the server. Nothing was changed.' },
  broken: { status: 503, when: 'The database cannot be reached.' },
  no_room: { status: 507, when: 'The disk is full. Nothing was changed.' },
} as const;
export type Code = keyof typeof CODES;
