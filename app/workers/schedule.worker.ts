/** Schedules off the main thread. */
import { expose } from "comlink";
import { scheduleApi } from "./schedule-api";

expose(scheduleApi());
