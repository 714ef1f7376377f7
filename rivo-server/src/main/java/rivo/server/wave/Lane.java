package rivo.server.wave;

/**
 * How far one wave has come, in devices. With a kit a device is in place when all of its titles are, and has failed when one of them has.
 *
 * @param open whether what it takes is served already
 * @param devices how many it takes
 * @param decided for how many of these the assignment decides that they get or lose something; the figures that follow are of these
 * @param inPlace how many have what they shall have
 * @param failed on how many it failed last
 * @param tried how many have carried it out or failed at it; what was in place before was not tried
 * @param calledIn how many have called in since the last of the open waves was opened
 * @param inPlaceSince how many of these are in place
 */
public record Lane(boolean open, int devices, int decided, int inPlace, int failed, int tried, int calledIn, int inPlaceSince) {
}
