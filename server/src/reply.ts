/** An answer as it leaves the server; its body is text already, so it can be kept, repeated, and handed between threads. */
export interface Reply {
  status: number;
  /** Null where there is no body, or where it is only written out when somebody has not got it yet. */
  json: string | null;
  /** Writes the body of an answer with a tag. */
  write?: () => string;
  headers?: Record<string, string>;
  /** Set on an answer that was kept for a write of the same name: which operation it was of. */
  operation?: string;
}

export function reply(value: unknown, status = 200, headers?: Record<string, string>): Reply {
  return { status, json: JSON.stringify(value), ...(headers ? { headers } : {}) };
}

/** An answer that says all with its status. */
export const NOTHING_TO_SAY: Reply = { status: 204, json: null };
