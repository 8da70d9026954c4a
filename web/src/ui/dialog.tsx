import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  open: boolean;
  onClose?: () => void;
  title: string;
  said?: string;
  children: ReactNode;
}

/** A sheet of paper over the bench. Without `onClose` it has to be answered. */
export function Dialog({ open, onClose, title, said, children }: Props) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose?.()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <Radix.Content
          className="fixed top-1/2 left-1/2 z-50 max-h-[92dvh] w-[min(36rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto border-[1.5px] border-ink bg-paper p-6 text-ink"
          {...(said ? {} : { "aria-describedby": undefined })}
          onInteractOutside={(event) => !onClose && event.preventDefault()}
          onEscapeKeyDown={(event) => !onClose && event.preventDefault()}
        >
          <Radix.Title className="mb-1 text-2xl">{title}</Radix.Title>
          {said && <Radix.Description className="mb-4 text-soft">{said}</Radix.Description>}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
