package rivo.server.fleet;

import java.util.List;
import rivo.core.estate.Device;
import rivo.core.estate.Present;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.server.estate.Snapshot;
import rivo.server.request.RequestDocument;

/**
 * What people have given back and Rivo had installed for them: it comes off, unless something else asks for it by now. What was there before
 * they took it stays.
 */
final class GivenBack {

    private GivenBack() {
    }

    static List<RequestDocument> of(Snapshot snapshot, Device device) {
        return RequestDocument.of(snapshot, device.id()).stream().filter(one -> one.isGivenBack() && comesOff(snapshot, device, one)).toList();
    }

    private static boolean comesOff(Snapshot snapshot, Device device, RequestDocument one) {
        Present present = device.present(one.title(), one.user());
        Title title = snapshot.estate().title(one.title());
        int unit = title == null ? -1 : snapshot.resolver().audiences().unit(title.scope(), device.id(), one.user());
        if (present == null || present.by() == null || title == null || unit < 0) {
            return false;
        }
        Decision decision = snapshot.resolver().at(title, unit);
        return decision == null || decision.outcome() == Outcome.AVAILABLE;
    }
}
