package rivo.server.demo;

import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.User;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.request.Requests;

/** What people of the demo's laboratories have asked for when it begins. */
@Component
@Profile("demo")
class DemoRequests {

    private static final String TITLE = "valvewright";
    private static final List<String> REASONS = List.of("I draw the sampling valves for the Tarn intake, until the end of the year",
            "Covering for a colleague in Planning");

    private final CurrentSnapshot current;
    private final Requests requests;

    DemoRequests(CurrentSnapshot current, Requests requests) {
        this.current = current;
        this.requests = requests;
    }

    /** The last few people of the laboratory for microbiology ask for the drawing program; whoever tries the shelf out asks for themselves. */
    void ask() {
        Estate estate = current.now().estate();
        Ou ou = estate.ous().all().stream().filter(one -> one.name().equals("Microbiology")).findFirst().orElseThrow();
        int position = estate.ous().position(ou.id());
        Iterator<String> reasons = REASONS.iterator();
        for (int p = estate.devices().to(position) - 1; p >= estate.devices().from(position) && reasons.hasNext(); p--) {
            Device device = estate.devices().at(p);
            User user = device.people().isEmpty() ? null : estate.users().find(device.people().get(0));
            boolean isTriedOut = device.people().stream().map(one -> estate.users().find(one)).anyMatch(one -> one != null && one.name().equals(DemoOrganisation.SHELF_PERSON));
            if (user != null && !isTriedOut) {
                String licence = Licences.hash(current.now().get(Titles.PART).record(TITLE).about().licence());
                requests.take(user.name(), user.id(), device.id(), TITLE, new Requests.Taking(reasons.next(), licence, Map.of()));
            }
        }
    }
}
