/** The order in which the log is read. */
import type { LogEntry } from "../core/records/log";

export const sortLog = (log: LogEntry[]): LogEntry[] => log.sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
