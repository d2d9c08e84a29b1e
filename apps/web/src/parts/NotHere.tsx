import type { ReactNode } from 'react';
import { Link } from 'react-router';

interface Props {
  /** What the address asks for; absent: nothing by name, and there is nothing. */
  asked: string | undefined;
  /** The heading where there is nothing yet. */
  nothing: string;
  /** What such a thing is, where there is none to be shown. */
  about: string;
  /** Those that are there. */
  others: readonly { id: string; name: string }[];
  /** The address of one of them. */
  to: (id: string) => { pathname: string; search: string };
  /** How one is made. */
  children?: ReactNode;
}

/** In place of a thing of the project that is not there: why, those that are, and how one is made. */
export function NotHere({ asked, nothing, about, others, to, children }: Props) {
  return (
    <main className="scroll mx-auto mt-20 w-[448px] px-1">
      <h1 className="break-words text-page">{asked === undefined ? nothing : `There is no “${asked}” here`}</h1>
      <p className="mt-2 text-ink-2">{asked === undefined ? about : 'It may have been renamed or deleted since the address was made.'}</p>
      {others.length > 0 && (
        <ul className="mt-4 border-t" aria-label="What there is">
          {others.map(({ id, name }) => (
            <li key={id} className="border-b border-hair py-1">
              <Link className="link block truncate" to={to(id)}>
                {name}
              </Link>
            </li>
          ))}
        </ul>
      )}
      {children && <div className="mt-4 flex flex-wrap gap-2">{children}</div>}
    </main>
  );
}
