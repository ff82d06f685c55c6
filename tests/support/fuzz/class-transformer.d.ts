/** Where class-transformer keeps what `@Type` said; its own types leave it out. */
declare module 'class-transformer/cjs/storage.js' {
  export const defaultMetadataStorage: {
    findTypeMetadata(
      target: new () => object,
      propertyName: string,
    ): { readonly typeFunction?: () => unknown } | undefined;
  };
}
