/** Reads and writes whole files off the main thread, so that a bench that runs meanwhile does not stutter. */
import "reflect-metadata";
import { expose } from "comlink";
import { filesApi } from "./files-api";

expose(filesApi);
