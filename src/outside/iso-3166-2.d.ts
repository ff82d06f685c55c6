declare module 'iso-3166-2' {
  const tables: {
    readonly data: Readonly<
      Record<
        string,
        {
          readonly name: string;
          readonly sub: Readonly<Record<string, { readonly type: string; readonly name: string }>>;
        }
      >
    >;
  };
  export default tables;
}
