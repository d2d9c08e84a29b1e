/**
 * Who is signed in, where there is a password: a name and an instant, signed with a key that is made of the password. Nothing
 * is kept of it but which were ended early; another password ends all.
 */
import { sign, unsign } from 'cookie-signature';
import { randomUUID, scryptSync, timingSafeEqual } from 'node:crypto';

export interface Session {
  id: string;
  /** Whom the revisions name. */
  name: string;
  /** ms since 1970 */
  until: number;
}

const DAYS = 30;
export const SESSION_MS = DAYS * 24 * 3600 * 1000;
/** Sessions ended early that are remembered: as many as anybody may end in their time. */
const MOST_ENDED = 100_000;

const keyOf = (password: string) => scryptSync(password, 'insidia session', 32);

export class Sessions {
  private readonly key: Buffer;
  private readonly ended = new Map<string, number>();

  /** @param onEnd is told which sessions were ended early */
  constructor(
    password: string,
    private readonly onEnd: (session: Session) => void = () => undefined,
  ) {
    this.key = keyOf(password);
  }

  /** Takes as long for a wrong password as for the right one. */
  matches(password: string): boolean {
    return timingSafeEqual(keyOf(password), this.key);
  }

  /** The text that a client shows from then on: as a cookie, or as a bearer token. */
  begin(name: string, now = Date.now()): string {
    const session: Session = { id: randomUUID(), name, until: now + SESSION_MS };
    return sign(Buffer.from(JSON.stringify(session)).toString('base64url'), this.key.toString('hex'));
  }

  /** The session of such a text; undefined where it was not signed here, is over, or was ended. */
  read(token: unknown, now = Date.now()): Session | undefined {
    const text = typeof token !== 'string' ? false : unsign(token, this.key.toString('hex'));
    if (text === false) return undefined;
    const session = JSON.parse(Buffer.from(text, 'base64url').toString()) as Session;
    return this.goesOn(session, now) ? session : undefined;
  }

  goesOn({ id, until }: Session, now = Date.now()): boolean {
    return until > now && !this.ended.has(id);
  }

  end(session: Session): void {
    this.recall(session);
    this.onEnd(session);
  }

  /** One that was ended before. */
  recall({ id, until }: Pick<Session, 'id' | 'until'>): void {
    this.ended.set(id, until);
    if (this.ended.size > MOST_ENDED) this.ended.delete(this.ended.keys().next().value as string);
  }
}
