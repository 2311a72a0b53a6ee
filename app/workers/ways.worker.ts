/** Plans all ways of a job, off the main thread. */
import { expose } from "comlink";
import { waysApi } from "./ways-api";

expose(waysApi);
