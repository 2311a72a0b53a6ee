/** Tries what moves a figure, off the main thread. */
import { expose } from "comlink";
import { whyApi } from "./why-api";

expose(whyApi);
