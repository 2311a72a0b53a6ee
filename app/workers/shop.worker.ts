/** Lays the whole shop, off the main thread. */
import { expose } from "comlink";
import { shopApi } from "./shop-api";

expose(shopApi());
