/** All rules, one a file. A new rule is one file and one row here. */
import type { Rule } from "../snag";
import { rule1 } from "./01-clean-before-paint";
import { rule2 } from "./02-seal-after-engraving";
import { rule3 } from "./03-fills-before-sanding";
import { rule4 } from "./04-lightest-first";
import { rule5 } from "./05-front-first";
import { rule6 } from "./06-cut-out-last";
import { rule7 } from "./07-dry-before-sanding";
import { rule8 } from "./08-covered";
import { rule9 } from "./09-ink-sealed";
import { rule10 } from "./10-touch-up-on-bare-wood";
import { rule11 } from "./11-label-first";
import { rule12 } from "./12-lift-cold";
import { rule13 } from "./13-proof-before-batch";
import { rule14 } from "./14-every-zone-has-its-colour";
import { rule15 } from "./15-inner-before-outline";
import { rule16 } from "./16-shows-the-drawing";
import { rule17 } from "./17-cut-line-as-paint";
import { rule18 } from "./18-plate-of-other-work";
import { rule19 } from "./19-bands-with-a-gap";
import { rule20 } from "./20-laser-safe";
import { rule21 } from "./21-recoat-window";
import { rule22 } from "./22-too-cold";
import { rule23 } from "./23-blush";
import { rule24 } from "./24-sun-or-hot-air";
import { rule25 } from "./25-epoxy-hard";
import { rule26 } from "./26-cold-night";
import { rule27 } from "./27-lift-in-time";
import { rule28 } from "./28-set-outlasts-window";
import { rule30 } from "./30-coats-to-hide";
import { rule31 } from "./31-top-film-window";
import { rule32 } from "./32-can";
import { rule33 } from "./33-finishes-that-attack";
import { rule34 } from "./34-acrylic-in-metal";
import { rule35 } from "./35-scuff-metal";
import { rule36 } from "./36-gloss-against-mask";
import { rule37 } from "./37-white-over-char";
import { rule38 } from "./38-stack-too-thick";
import { rule40 } from "./40-beam-marks";
import { rule41 } from "./41-grey-window";
import { rule42 } from "./42-lines-too-far-apart";
import { rule43 } from "./43-polarity";
import { rule44 } from "./44-mirror";
import { rule45 } from "./45-detail";
import { rule46 } from "./46-piece-smaller-than-picture";
import { rule47 } from "./47-diode-mask-scorch";
import { rule48 } from "./48-run-too-long";
import { rule49 } from "./49-no-plate";
import { rule50 } from "./50-depth-short";
import { rule51 } from "./51-stroke-narrower-than-tool";
import { rule52 } from "./52-islands";
import { rule53 } from "./53-zones-too-near";
import { rule54 } from "./54-powder-unmasked-oven";
import { rule55 } from "./55-fills-too-few";
import { rule56 } from "./56-too-hot";
import { rule57 } from "./57-does-not-fit";
import { rule58 } from "./58-veneer";
import { rule59 } from "./59-open-grain";
import { rule60 } from "./60-turned-twice";
import { rule61 } from "./61-mask-not-cut";
import { rule62 } from "./62-air-over-powder";
import { rule63 } from "./63-reflecting-bed";
import { rule64 } from "./64-placed-too-loosely";
import { rule65 } from "./65-change-over";
import { rule66 } from "./66-only-fused";
import { rule67 } from "./67-cut-through";
import { rule68 } from "./68-packed-too-soon";
import { rule69 } from "./69-sags";
import { rule70 } from "./70-chlorine";
import { rule71 } from "./71-breathing";
import { rule72 } from "./72-rags";
import { rule73 } from "./73-laser-alone";
import { rule74 } from "./74-oven";
import { rule75 } from "./75-thin-glass";
import { rule76 } from "./76-metal-burrs";
import { rule77 } from "./77-epoxy";
import { rule78 } from "./78-old-paint";
import { rule79 } from "./79-food-contact";
import { rule80 } from "./80-unknown-coating";
import { rule81 } from "./81-drying-in-enclosure";
import { rule83 } from "./83-chlorinated-cleaner";
import { rule84 } from "./84-oily-rags";
import { rule85 } from "./85-stray-beam";
import { rule86 } from "./86-waste";
import { rule87 } from "./87-blades-and-dust";
import { rule88 } from "./88-chuck-on-glass";
import { rule89 } from "./89-crazing";
import { rule91 } from "./91-learned-here";

export const RULES: Rule[] = [
  rule1,
  rule2,
  rule3,
  rule4,
  rule5,
  rule6,
  rule7,
  rule8,
  rule9,
  rule10,
  rule11,
  rule12,
  rule13,
  rule14,
  rule15,
  rule16,
  rule17,
  rule18,
  rule19,
  rule20,
  rule21,
  rule22,
  rule23,
  rule24,
  rule25,
  rule26,
  rule27,
  rule28,
  rule30,
  rule31,
  rule32,
  rule33,
  rule34,
  rule35,
  rule36,
  rule37,
  rule38,
  rule40,
  rule41,
  rule42,
  rule43,
  rule44,
  rule45,
  rule46,
  rule47,
  rule48,
  rule49,
  rule50,
  rule51,
  rule52,
  rule53,
  rule54,
  rule55,
  rule56,
  rule57,
  rule58,
  rule59,
  rule60,
  rule61,
  rule62,
  rule63,
  rule64,
  rule65,
  rule66,
  rule67,
  rule68,
  rule69,
  rule70,
  rule71,
  rule72,
  rule73,
  rule74,
  rule75,
  rule76,
  rule77,
  rule78,
  rule79,
  rule80,
  rule81,
  rule83,
  rule84,
  rule85,
  rule86,
  rule87,
  rule88,
  rule89,
  rule91,
];
