package rivo.server.fleet;

import rivo.server.estate.Snapshot;

/**
 * Who speaks the device protocol, proven by a signature or a mirror's key. A handler that takes one as its parameter cannot be
 * called without: {@link CallerResolver} makes it from the request that has been routed to that very handler.
 */
sealed interface Caller permits Caller.CallingDevice, Caller.CallingMirror, Caller.Enrolling {

    /**
     * An enrolled device.
     *
     * @param id the only device that it may speak for
     * @param snapshot by which it was recognised, and of which it is answered
     */
    record CallingDevice(String id, Snapshot snapshot) implements Caller {
    }

    /** A mirror, which may have content and nothing else. */
    record CallingMirror(String id) implements Caller {
    }

    /** Whoever holds a one-time token, as the signature will show once the body has told the device's key. */
    record Enrolling(SignedRequest request) implements Caller {
    }
}
