/** File identities by the name they came with. */
export type FileIds = Map<string, string>
