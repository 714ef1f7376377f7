package rivo.server.fleet;

import rivo.devices.protocol.ShelfAct;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** The shelf of somebody who is signed in on a device, for an agent that shows it itself. Done by the shelf, which stands above this package. */
public interface AgentShelf {

    /**
     * The same as they see at {@code /shelf} of that device.
     *
     * @param person the id
     */
    Object of(Snapshot snapshot, String person, String device);

    /**
     * Does what they do there.
     *
     * @param act whose account has been looked at
     * @throws ApiException where that is not theirs to do
     */
    void act(String person, String device, ShelfAct act);
}
