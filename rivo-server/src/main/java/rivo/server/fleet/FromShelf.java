package rivo.server.fleet;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import rivo.core.estate.Device;
import rivo.core.estate.Target;
import rivo.server.audience.Names;
import rivo.server.estate.Snapshot;
import rivo.server.request.RequestDocument;

/**
 * What people of a device have taken from their shelf and given back.
 *
 * @param takenBy by whom, as they are called
 * @param asked what waits for approval
 * @param givenBack what comes off for that
 */
record FromShelf(Map<JobKey, String> takenBy, Set<JobKey> asked, Set<JobKey> givenBack) {

    static final FromShelf NOTHING = new FromShelf(Map.of(), Set.of(), Set.of());

    static FromShelf of(Snapshot snapshot, Device device) {
        Map<JobKey, String> takenBy = new HashMap<>();
        Set<JobKey> asked = new HashSet<>();
        for (RequestDocument one : RequestDocument.of(snapshot, device.id())) {
            if (one.isAsked()) {
                asked.add(JobKey.of(one.title(), one.user()));
            }
            if (one.isTaken()) {
                boolean known = snapshot.estate().users().find(one.by()) != null;
                takenBy.put(JobKey.of(one.title(), one.user()), known ? Names.of(snapshot.estate(), Target.user(one.by())) : "somebody who has gone");
            }
        }
        Set<JobKey> givenBack = new HashSet<>();
        GivenBack.of(snapshot, device).forEach(one -> givenBack.add(JobKey.of(one.title(), one.user())));
        return new FromShelf(takenBy, asked, givenBack);
    }
}
