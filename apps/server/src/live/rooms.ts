/** Who has which project open: what is saved is told to all of them, and where each one is to the others. */
import type { Here, Told } from '@kite/api/live';

/** What there is of a socket here. */
export interface Member {
  readonly send: (text: string) => void;
  /** Bytes that were sent and have not gone out. */
  readonly bufferedAmount: number;
  readonly terminate: () => void;
}

/** Who takes in less than comes is let go: its page opens a line anew and reads what it missed. */
const MOST_BUFFERED = 32 * 2 ** 20;

export class Rooms {
  private readonly rooms = new Map<string, Map<Member, Here | null>>();

  /** Gives what takes the member out again. */
  enter(project: string, member: Member): () => void {
    const room = this.rooms.get(project) ?? new Map<Member, Here | null>();
    this.rooms.set(project, room.set(member, null));
    return () => {
      room.delete(member);
      if (room.size === 0) this.rooms.delete(project);
      this.tellWhoIsHere(project);
    };
  }

  /** Where a member is now. */
  place(project: string, member: Member, here: Here): void {
    this.rooms.get(project)?.set(member, here);
    this.tellWhoIsHere(project);
  }

  /** Edits, in order, as JSON. */
  tellSaved(project: string, edits: string): void {
    this.tell(project, `{"edits":${edits}}`);
  }

  private tellWhoIsHere(project: string): void {
    const people = [...(this.rooms.get(project)?.values() ?? [])].filter((here) => here !== null);
    this.tell(project, JSON.stringify({ people } satisfies Told));
  }

  private tell(project: string, text: string): void {
    for (const member of this.rooms.get(project)?.keys() ?? []) {
      if (member.bufferedAmount > MOST_BUFFERED) member.terminate();
      else member.send(text);
    }
  }
}
