/** The first piece, to be looked at before the rest. */
import { kind, LASER } from "../step";
import { laserNeeds, pieceSeconds } from "./laser-work";

export const proof = kind([...LASER], {
  id: "proof",
  name: "Proof piece",
  addable: true,
  on: "zones",
  beam: "trial",
  tries: "piece",
  attended: true,
  photo: true,
  purpose: () => "One piece shows what the whole batch would suffer.",
  tool: () => "Laser, one piece",
  lookFor: () => ({
    look: "Beside the artwork, nothing missing",
    how: "arm's length, same light",
    against: "artwork, customer's word",
  }),
  cues: () => ["Run one piece, clean it, look at it before the rest", "Send it for approval if the order asks for it"],
  minutes: (s, c) => {
    const sec = pieceSeconds(s, c);
    return sec === null ? null : { setup: 10 + sec / 60, perPiece: 0 };
  },
  needs: laserNeeds,
  apply: (_s, p) => ({ ...p, proofed: true }),
});
