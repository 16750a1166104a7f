/** What a form of own systems would keep: where it is sent, and all of the request but the name. */
export interface Offer {
  path: string;
  body: Record<string, unknown>;
}
