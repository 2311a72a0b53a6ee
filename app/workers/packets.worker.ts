/** Lays out and writes what goes to the laser, off the main thread. */
import { expose } from "comlink";
import { loadKernel } from "./kernel";
import { packetsApi } from "./packets-api";

expose(packetsApi(loadKernel));
