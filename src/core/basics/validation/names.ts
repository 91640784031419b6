/** Under this header a page says which record it was opened on. */
export const RECORD_HEADER = "x-zygometer-record";
/** Before the code, in the digest that a failed page hands to its error page. */
export const DIGEST = "zygometer:";
