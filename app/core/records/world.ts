/** What a plan is made from: one job and the shop it is made in. Plain data, nothing else is read. */
import type { Job } from "./job";
import type { LogEntry } from "./log";
import type { Machine } from "./machine";
import type { Product } from "./product";
import type { Shop } from "./shop";

export interface World {
  shop: Shop;
  machines: Machine[];
  products: Product[];
  job: Job;
  /** entries of this job, in order */
  log: LogEntry[];
}
