/** Reckons what a job costs by how many are made, off the main thread. */
import { expose } from "comlink";
import { costApi } from "./cost-api";

expose(costApi);
