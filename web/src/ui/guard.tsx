import { Component, type ReactNode } from "react";

import { cache } from "@/api/queries";
import { Button } from "@/ui/button";
import { say } from "@/say";

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
          {lost ? say("ui.this_page_did_not_arrive") : say("ui.this_page_failed")}
        </h1>
        <p className="mb-5 text-lg">
          {say("ui.moves_and_formulas_are_kept_in", {
            lost: lost
              ? say("ui.the_kitchens_server_was_away_when")
              : say("ui.something_in_it_could_not_be"),
          })}
        </p>
        <div className="flex flex-wrap gap-3">
          <Button kind="act" onClick={() => (lost ? window.location.reload() : this.again())}>
            {say("ui.try_again")}
          </Button>
          <Button onClick={() => window.location.assign("/")}>{say("ui.to_the_shelf")}</Button>
        </div>
        {!lost && <p className="caption mt-5 break-words">{error.message}</p>}
      </div>
    );
  }
}
