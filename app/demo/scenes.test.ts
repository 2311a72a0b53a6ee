/** The sample's pictures are those that its code makes, to the byte. */
import pictures from "./pictures.json";
import { keptScene, SCENES } from "./scenes";

test.each(Object.keys(SCENES) as (keyof typeof SCENES)[])("%s", (name) => {
  expect(keptScene(name)).toEqual(pictures[name]);
});
