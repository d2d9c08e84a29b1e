/**
 * Parts that can fail alone. What throws while it is drawn is replaced by what failed and why, with the project as a file to
 * keep; everything around it goes on, and the next change of what it shows is tried again.
 */
import { Component, type ComponentType, type ReactNode } from 'react';
import { useStore } from 'react-redux';
import { saveFile } from './saveFile';
import type { AppStore } from '../store/store';

interface GuardProps {
  /** What it is, as a sentence's beginning: "The reach strip". */
  name: string;
  /** When this is another than at the failure, it is tried again. */
  shows?: unknown;
  children: ReactNode;
}

export class Guard extends Component<GuardProps, { error?: Error; failedOn?: unknown }> {
  override state: { error?: Error; failedOn?: unknown } = {};

  static getDerivedStateFromError(error: unknown) {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidCatch(): void {
    this.setState({ failedOn: this.props.shows });
  }

  override componentDidUpdate(): void {
    const { error, failedOn } = this.state;
    if (error && failedOn !== undefined && this.props.shows !== failedOn) this.setState({ error: undefined, failedOn: undefined });
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    return <Failure name={this.props.name} error={error} onAgain={() => this.setState({ error: undefined, failedOn: undefined })} />;
  }
}

/** A component that fails alone. Its properties are what it shows. */
export function guarded<Props extends object>(name: string, Part: ComponentType<Props>) {
  const Guarded = (props: Props) => (
    <Guard name={name} shows={props}>
      <Part {...props} />
    </Guard>
  );
  Guarded.displayName = `guarded(${name})`;
  return Guarded;
}

/** Whatever was not saved when a page is left is kept, and so is what can be undone. */
export const LoadAnew = () => (
  <button type="button" className="btn" onClick={() => window.location.reload()}>
    Load the page anew
  </button>
);

function Failure({ name, error, onAgain }: { name: string; error: Error; onAgain: () => void }) {
  const store = useStore() as AppStore;
  const { document } = store.getState().document;
  return (
    <div role="alert" className="min-w-0 border border-warn bg-sheet px-3 py-2 text-table">
      <p>
        <b>{name}</b> can’t be shown: {error.message || 'no reason was given'}.
      </p>
      <p className="text-ink-2">Nothing is lost: the project is as it was saved, and everything else goes on.</p>
      <p className="mt-1.5 flex flex-wrap gap-1.5">
        <button type="button" className="btn" onClick={onAgain}>
          Try again
        </button>
        {document && (
          <button
            type="button"
            className="btn"
            onClick={() =>
              saveFile(`${document.id}.insidia.json`, new Blob([JSON.stringify(document, null, 2)], { type: 'application/json' }))
            }
          >
            Save the project as a file
          </button>
        )}
        <LoadAnew />
      </p>
    </div>
  );
}
