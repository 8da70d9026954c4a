import { Component, type ReactNode } from "react";

import { cache } from "@/api/queries";
import { Button } from "@/ui/button";

interface Props {
  /** Another place is another try. */
  place: string;
  children: ReactNode;
}

interface State {
  error: Error | null;
  place: string;
}

/** A part of the program that did not arrive: only loading the page again fetches it anew. */
const isLostChunk = (error: Error) =>
  /dynamically imported module|module script|Failed to fetch|Unable to preload/i.test(
    error.message,
  );

/** A page that fails says so and can be tried again; the rest of the tablet goes on. */
export class Guard extends Component<Props, State> {
  override state: State = { error: null, place: this.props.place };

  static getDerivedStateFromError(error: unknown): Partial<State> {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  static getDerivedStateFromProps(props: Props, state: State): Partial<State> | null {
    return props.place === state.place ? null : { place: props.place, error: null };
  }

  /** What the failed page had fetched may be what it failed on: it is fetched again. */
  private again(): void {
    cache.removeQueries({ type: "inactive" });
    this.setState({ error: null });
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    const lost = isLostChunk(error);
    return (
      <div className="mx-auto max-w-prose p-8" role="alert">
        <h1 className="mb-3 text-3xl">
          {lost ? "This page did not arrive." : "This page failed."}
        </h1>
        <p className="mb-5 text-lg">
          {lost
            ? "The kitchen’s server was away when it was asked for."
            : "Something in it could not be drawn. A cook that is going on goes on."}{" "}
          Moves and formulas are kept in this tablet and on the server; nothing of them is lost.
        </p>
        <div className="flex flex-wrap gap-3">
          <Button kind="act" onClick={() => (lost ? window.location.reload() : this.again())}>
            Try again
          </Button>
          <Button onClick={() => window.location.assign("/")}>To the shelf</Button>
        </div>
        {!lost && <p className="caption mt-5 break-words">{error.message}</p>}
      </div>
    );
  }
}
