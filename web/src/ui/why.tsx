import { Popover } from "radix-ui";

import type { Shapes } from "@/api/client";
import { say } from "@/say";

/** Any number can be asked for its reason: inputs, rule, source, how sure. */
export function Why({ about, reason }: { about: string; reason: Shapes["Reason"] | undefined }) {
  if (!reason) return null;
  return (
    <Popover.Root>
      <Popover.Trigger
        className="-my-3 ml-0.5 inline-flex min-h-12 min-w-12 items-center justify-center align-middle font-sans text-sm font-normal tracking-normal italic underline decoration-dotted underline-offset-4"
        aria-label={say("ui.why", { about })}
      >
        {say("ui.why_2")}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 w-[min(24rem,92vw)] border-[1.5px] border-ink bg-sheet p-4 text-[0.94rem] text-ink"
          sideOffset={2}
          collisionPadding={8}
        >
          <p className="mb-2">{reason.says}</p>
          <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
            <dt className="caption">{say("ui.rule")}</dt>
            <dd>{reason.rule}</dd>
            <dt className="caption">{say("ui.from")}</dt>
            <dd>{reason.source}</dd>
            <dt className="caption">{say("ui.sure")}</dt>
            <dd>{reason.sure}</dd>
          </dl>
          <Popover.Arrow className="fill-ink" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
