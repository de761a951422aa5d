import { Injectable } from '@angular/core';
import type { StreamMessage } from '@voltrek/contracts';
import type { Action } from '@ngrx/store';
import { BehaviorSubject, filter, Subject } from 'rxjs';

/** One page of a device listens to the server; the others hear it from that one. */
const LISTENER_LOCK = 'voltrek.listener';
const CHANNEL = 'voltrek.news';
/** The server says this often that the line stands, and a little more: then it is dead, ms. */
const SILENT_MS = 40_000;
/** A line that broke for good is made anew after this, ms. */
const AGAIN_MS = 2_000;

/** Messages between pages of a device. */
type Relayed =
  | { readonly kind: 'message'; readonly message: StreamMessage }
  /** `isNew`: it was made just now; earlier messages are lost. */
  | { readonly kind: 'line'; readonly isOpen: boolean; readonly isNew: boolean }
  /** A page that has just opened asks how the line stands. */
  | { readonly kind: 'asks' }
  /** Something that a page did to what all pages of the device show. */
  | { readonly kind: 'page'; readonly action: Action };

/**
 * The event stream of the server, on one line for the whole device: a browser gives six connections a host. A stream for each page would
 * leave none for the sixth page's taps. The page that listens relays to the others; when it closes, the next one takes its place.
 */
@Injectable({ providedIn: 'root' })
export class StreamLine {
  private readonly received = new Subject<StreamMessage>();
  private readonly line = new BehaviorSubject(false);
  private readonly came = new Subject<void>();
  private readonly channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel(CHANNEL) : null;
  private isListener = false;
  private readonly shared = new Subject<Action>();

  /** Messages of the server, as they come. */
  readonly messages = this.received.asObservable();
  /** Whether the line stands, as it is once it has stood and whenever that changes: a page that has just opened has not lost it. */
  readonly changes = this.line.pipe(filter((isOpen, i) => isOpen || i > 0));
  /**
   * It came to stand while somebody was listening: what was missed is to be fetched. Also where it never was seen to break: between the
   * page that listened, which closes without a word, and the next one.
   */
  readonly cameBack = this.came.asObservable();

  /** Actions of other pages of this device, as they happen; with the network and without. */
  readonly ofPages = this.shared.asObservable();

  /** Tells the other pages of this device what was done on this one. */
  tellPages(action: Action): void {
    this.relay({ kind: 'page', action });
  }

  /** Begins to listen, itself or through another page of this device. */
  start(): void {
    if (this.channel) {
      this.channel.onmessage = ({ data }: MessageEvent<Relayed>) => this.hear(data);
      this.relay({ kind: 'asks' });
    }
    const listen = (): Promise<never> => {
      this.isListener = true;
      this.open();
      return new Promise(() => undefined);
    };
    // Without locks, or a way to tell the others, every page listens for itself.
    if (this.channel && 'locks' in navigator) void navigator.locks.request(LISTENER_LOCK, listen);
    else void listen();
  }

  private hear(relayed: Relayed): void {
    if (relayed.kind === 'page') this.shared.next(relayed.action);
    else if (relayed.kind === 'asks') {
      if (this.isListener) this.relay({ kind: 'line', isOpen: this.line.value, isNew: false });
    } else if (this.isListener) return;
    else if (relayed.kind === 'line') this.set(relayed);
    else this.received.next(relayed.message);
  }

  private relay(relayed: Relayed): void {
    this.channel?.postMessage(relayed);
  }

  private set({ isOpen, isNew }: { readonly isOpen: boolean; readonly isNew: boolean }): void {
    const stood = this.line.value;
    if (stood !== isOpen) this.line.next(isOpen);
    if (isOpen && (isNew || !stood)) this.came.next();
  }

  /** The page that listens says how the line stands; one that stands has just been made. */
  private say(isOpen: boolean): void {
    const line = { kind: 'line', isOpen, isNew: isOpen } as const;
    this.set(line);
    this.relay(line);
  }

  /** The line itself. Browsers reconnect a broken stream, except after an error answer or a silent death. */
  private open(): void {
    const source = new EventSource('/api/stream');
    let silent: ReturnType<typeof setTimeout>;
    const again = (): void => {
      clearTimeout(silent);
      source.close();
      this.say(false);
      setTimeout(() => this.open(), AGAIN_MS);
    };
    const watch = (): void => {
      clearTimeout(silent);
      silent = setTimeout(again, SILENT_MS);
    };
    watch();
    source.onopen = () => {
      watch();
      this.say(true);
    };
    source.onmessage = ({ data }) => {
      watch();
      const message = JSON.parse(String(data)) as StreamMessage;
      if (message.kind === 'beat') return;
      this.received.next(message);
      this.relay({ kind: 'message', message });
    };
    source.onerror = () => {
      if (source.readyState === EventSource.CLOSED) again();
      else this.say(false);
    };
  }
}
