import type { ReactNode } from 'react';

/** One part of the readout under its title. */
export function Part({ title, note, right, children }: { title: string; note?: string; right?: ReactNode; children: ReactNode }) {
  return (
    <section className="mt-1.5 border-t border-hair pt-[5px]" aria-label={title}>
      <div className="section-head">
        <h3>{title}</h3>
        {note && <span className="note truncate">{note}</span>}
        <span className="flex-1" />
        {right}
      </div>
      <div className="mt-1">{children}</div>
    </section>
  );
}
