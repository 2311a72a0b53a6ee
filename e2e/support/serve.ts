/** Before all journeys: the app built where its sources have changed, and served. */
import { build } from "../../scripts/setup.mjs";
import { serve } from "../../scripts/serve.mjs";

export default async function begin(): Promise<() => void> {
  build();
  const { server, url } = await serve(0);
  process.env.RICH_LAYER_URL = url;
  return () => void server.close();
}
