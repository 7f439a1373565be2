/** The content policy of every answer that is no page: it may load and run nothing, and stand in no frame. */
export const STRICT_POLICY = "default-src 'none'; frame-ancestors 'none'";

/** The content policy of the application's scripts: their workers load modules and ask the API of their own origin. */
export const WORKER_POLICY = "default-src 'self'; frame-ancestors 'none'";
