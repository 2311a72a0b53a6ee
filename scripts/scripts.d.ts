declare module "*/setup.mjs" {
  export const root: string;
  export function build(): void;
  export function install(): void;
}
declare module "*/door.mjs" {
  export function knock(
    input: string | Uint8Array,
    args: string[],
  ): { status: number | null; stdout: Buffer; stderr: Buffer };
}
declare module "*/serve.mjs" {
  import type { Server } from "node:http";
  export function serve(port?: number, dir?: string): Promise<{ server: Server; url: string }>;
}
