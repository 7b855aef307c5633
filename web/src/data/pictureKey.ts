/** Set in the device's storage while it holds pictures that the server has not got yet. */
export const PICTURES_WAIT_KEY = 'cadenza-pictures-wait';
