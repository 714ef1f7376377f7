/** How many bytes are turned into text at once: a call takes only so many arguments. */
const AT_ONCE = 8192

/** Bytes in base 64 (RFC 4648, section 4). */
export function base64(bytes: Uint8Array): string {
  let text = ''
  for (let at = 0; at < bytes.length; at += AT_ONCE) {
    text += String.fromCharCode(...bytes.subarray(at, at + AT_ONCE))
  }
  return btoa(text)
}
