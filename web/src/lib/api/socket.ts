import type { Message, Question } from "./generated";
import { ServerClock } from "./serverClock";

const burst = 8;
const burstEvery = 4_000;
const reconnectAfter = 700;

/** The one WebSocket to the server. It connects again for as long as the page is open. */
export class Socket {
  readonly clock = new ServerClock();
  #socket: WebSocket | undefined;

  constructor(
    private readonly receive: (message: Message) => void,
    private readonly connected: (is: boolean) => void,
  ) {
    this.#connect();
    setInterval(() => this.#askTheTime(), burstEvery);
  }

  #connect(): void {
    const url = new URL("./ws", location.href);
    url.protocol = "ws:";
    url.hash = "";
    const socket = new WebSocket(url);
    this.#socket = socket;
    socket.onopen = () => {
      this.clock.reset();
      this.#askTheTime();
      this.connected(true);
    };
    socket.onmessage = (event: MessageEvent<string>) => this.#read(event.data);
    socket.onclose = () => {
      this.connected(false);
      setTimeout(() => this.#connect(), reconnectAfter);
    };
  }

  #read(data: string): void {
    const received = performance.now();
    const message = JSON.parse(data) as Message;
    if (message.clock) this.clock.learn(message.clock.sent, received, message.clock.server);
    else this.receive(message);
  }

  /** Sends what has come in at the page. While there is no connection nothing is: whoever plays hears that. */
  send(question: Question): void {
    if (this.#socket?.readyState === WebSocket.OPEN) this.#socket.send(JSON.stringify(question));
  }

  #askTheTime(): void {
    if (this.#socket?.readyState !== WebSocket.OPEN) return;
    for (let i = 0; i < burst; i++) {
      const question: Question = { sent: performance.now() };
      this.#socket.send(JSON.stringify(question));
    }
  }
}
