/** A part under a line of text that opens and shuts it. What stands in it is made when it is opened: long forms stay out of the page. */
import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import { useState } from "react";

export function Fold({
  summary,
  children,
  open: begins = false,
  className = "border-t border-line pt-1",
  inside = "my-3 flex flex-col gap-3",
  ...more
}: {
  summary: React.ReactNode;
  children: React.ReactNode | (() => React.ReactNode);
  open?: boolean;
  className?: string;
  inside?: string;
  "data-figures"?: string;
}) {
  const [open, setOpen] = useState(begins);
  return (
    <Collapsible.Root open={open} onOpenChange={setOpen} className={className} {...more}>
      <Collapsible.Trigger className="link-act fold" data-fold>
        <ChevronRight size={16} aria-hidden="true" className="fold-mark" />
        <span>{summary}</span>
      </Collapsible.Trigger>
      {open && (
        <Collapsible.Content className={inside}>
          {typeof children === "function" ? children() : children}
        </Collapsible.Content>
      )}
    </Collapsible.Root>
  );
}
