/** The `*.richlayer.json` file: one job with what its plan needs, or the whole shop. */
import { OneOf, Sub, SubList, Whole } from "./fields";
import { Job } from "./job";
import { LogEntry, Photo } from "./log";
import { Machine } from "./machine";
import { Product } from "./product";
import { Shop } from "./shop";

export class RichLayerFile {
  @Whole(1, 1) richlayer: number = 1;
  @OneOf(["job", "shop"]) kind!: "job" | "shop";
  @Sub(() => Shop) shop!: Shop;
  @SubList(() => Machine, 200) machines!: Machine[];
  @SubList(() => Product, 2000) products!: Product[];
  @SubList(() => Job, 20000) jobs!: Job[];
  @SubList(() => LogEntry, 500000) log!: LogEntry[];
  @SubList(() => Photo, 5000) photos!: Photo[];
}
