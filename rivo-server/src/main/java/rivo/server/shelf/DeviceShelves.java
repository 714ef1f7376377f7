package rivo.server.shelf;

import java.util.Map;
import java.util.Objects;
import org.springframework.stereotype.Component;
import rivo.core.estate.User;
import rivo.devices.protocol.ShelfAct;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.AgentShelf;
import rivo.server.request.Requests;

/** Shelves for agents that show them themselves. Safe for any number of threads. */
@Component
class DeviceShelves implements AgentShelf {

    private final CurrentSnapshot current;
    private final Shelves shelves;
    private final Requests requests;

    DeviceShelves(CurrentSnapshot current, Shelves shelves, Requests requests) {
        this.current = current;
        this.shelves = shelves;
        this.requests = requests;
    }

    @Override
    public Shelf of(Snapshot snapshot, String person, String device) {
        return shelves.of(snapshot, person, device, device);
    }

    @Override
    public void act(String person, String device, ShelfAct act) {
        User user = current.now().estate().users().find(person);
        String account = user == null ? person : user.name();
        String title = Objects.requireNonNull(act.title());
        switch (Objects.requireNonNull(act.action())) {
            case TAKE -> requests.take(account, person, device, title, new Requests.Taking(act.why(), act.licence(), Objects.requireNonNullElse(act.choices(), Map.of())));
            case GIVE_BACK -> requests.giveBack(account, person, device, title);
            case SOONER -> requests.sooner(account, person, device, title);
        }
    }
}
