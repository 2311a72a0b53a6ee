declare module "clipper2-wasm/dist/es/clipper2z.js" {
  const factory: unknown;
  export default factory;
}
