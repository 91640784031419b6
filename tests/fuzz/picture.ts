/** One grey pixel as a PNG, made by hand (RFC 2083): small enough to be in every body. */
export const dataUrlOf = (): string =>
  "data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==";
