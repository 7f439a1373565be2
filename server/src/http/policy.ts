/** The content policy of every answer that is no page: it may load and run nothing, and stand in no frame. */
export const STRICT_POLICY = "default-src 'none'; frame-ancestors 'none'";
