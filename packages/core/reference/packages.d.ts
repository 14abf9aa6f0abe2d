declare module 'bunny' {
  const mesh: { positions: [number, number, number][]; cells: [number, number, number][] };
  export default mesh;
}
declare module 'teapot' {
  const mesh: { positions: [number, number, number][]; cells: [number, number, number][] };
  export default mesh;
}
declare module 'gltf-validator' {
  interface Report {
    readonly issues: {
      readonly numErrors: number;
      readonly messages: readonly { readonly severity: number }[];
    };
  }
  interface Options {
    externalResourceFunction?(uri: string): Promise<Uint8Array>;
  }
  const validator: { validateBytes(bytes: Uint8Array, options?: Options): Promise<Report> };
  export default validator;
}
