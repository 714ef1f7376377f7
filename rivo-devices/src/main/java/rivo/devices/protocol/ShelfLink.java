package rivo.devices.protocol;

/**
 * By which a person who is signed in on the device comes to their shelf of it.
 *
 * @param path where their browser opens it, below the server's address; it works once
 * @param validSeconds for how long
 */
public record ShelfLink(String path, long validSeconds) {
}
