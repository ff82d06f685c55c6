const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Whether a text is an id as ours are written (RFC 9562, in lower case): anything else would be an error in a statement. */
export const isUuid = (text: string): boolean => UUID.test(text);
