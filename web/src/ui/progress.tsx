import { Button } from "@/ui/button";
import { say } from "@/say";

interface ProgressProps {
  said: string;
  done: number;
  of: number;
  onStop: () => void;
}

/** How far long work is, and a way to stop it. */
export function Progress({ said, done, of, onStop }: ProgressProps) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-4">
      <p role="status" className="italic">
        {said}
      </p>
      {of > 0 && (
        <progress className="h-3 w-full max-w-64" max={of} value={done} aria-label={said} />
      )}
      <Button onClick={onStop}>{say("files.stop")}</Button>
    </div>
  );
}
