/** The line to a project that is open: opened anew whenever it breaks, with where this page is said first. */
import { type Here, LIVE, type Told } from '@kite/api/live';
import { urlOf } from '@kite/api/call';

/** How long a line that broke waits until it is opened anew: longer each time that it could not be. */
const AGAIN_MS = 1_500;
const LONGEST_MS = 30_000;

export class Line {
  private socket: WebSocket | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private here: string | null = null;
  private closed = false;
  private wait = AGAIN_MS;

  constructor(
    private readonly project: string,
    private readonly hear: (told: Told) => void,
  ) {
    this.open();
  }

  private open(): void {
    const address = new URL(urlOf(LIVE.line, { id: this.project }), location.href);
    address.protocol = location.protocol === 'https:' ? 'wss:' : 'ws:';
    const socket = new WebSocket(address);
    this.socket = socket;
    socket.onopen = () => {
      this.wait = AGAIN_MS;
      if (this.here !== null) socket.send(this.here);
    };
    socket.onmessage = ({ data }: MessageEvent<string>) => this.hear(JSON.parse(data) as Told);
    socket.onclose = () => {
      if (this.closed) return;
      // Who else is here is not known without it.
      this.hear({ people: [] });
      this.timer = setTimeout(() => this.open(), this.wait);
      this.wait = Math.min(LONGEST_MS, 2 * this.wait);
    };
  }

  say(here: Here): void {
    const text = JSON.stringify(here);
    if (text === this.here) return;
    this.here = text;
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(text);
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    this.socket?.close();
  }
}
