import { data } from "react-router";

export async function clientLoader() {
  throw data("The address does not lead to a page of this app.", { status: 404 });
}
export default function Nowhere() {
  return null;
}
