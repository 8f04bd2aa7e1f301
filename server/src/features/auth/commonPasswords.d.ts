declare module 'fxa-common-password-list' {
  /** Is a password among those that are tried first? */
  const list: { readonly test: (password: string) => boolean };
  export default list;
}
