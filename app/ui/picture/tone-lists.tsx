/** Tone steps kept under a name, to be used on other pictures. */
import { X } from "lucide-react";
import { ActButton, PostForm } from "../kit/field";

export function ToneLists({ lists, any }: { lists: string[]; any: boolean }) {
  return (
    <div className="flex flex-col gap-2" data-tone-lists={lists.length}>
      {lists.length > 0 && (
        <>
          <p className="tag">Kept steps; using some takes the place of those above.</p>
          <ul className="flex flex-wrap gap-2">
            {lists.map((name) => (
              <li key={name} className="flex">
                <ActButton act={{ intent: "tones-use", name }}>{name}</ActButton>
                <ActButton
                  className="btn btn-quiet"
                  label={`Keep “${name}” no longer`}
                  act={{ intent: "tones-forget", name }}
                >
                  <X size={16} aria-hidden="true" />
                </ActButton>
              </li>
            ))}
          </ul>
        </>
      )}
      {any && (
        <PostForm intent="tones-keep" className="flex flex-wrap items-end gap-2">
          <label className="flex flex-col gap-0.5 text-small text-muted">
            Keep these steps as
            <input name="name" required maxLength={60} className="field-in text-ink" />
          </label>
          <button className="btn">Keep them</button>
        </PostForm>
      )}
    </div>
  );
}
