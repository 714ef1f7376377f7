package rivo.server.search;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Kit;
import rivo.core.estate.Ou;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.server.audience.Names;
import rivo.server.estate.CurrentSnapshot;

/** Finds devices, people, audiences, kits and titles by a few letters. Costs one pass over the names. */
@RestController
class SearchApi {

    /** @param second a second line that tells it from others of the same name */
    record Hit(@Schema(allowableValues = {"title", "kit", "ou", "group", "collection", "device", "person"}) String kind, String id, String name,
            String second) {
    }

    /** @param devices how many devices match in all; and so for the others */
    record Hits(List<Hit> hits, int titles, int kits, int ous, int groups, int collections, int devices, int people) {
    }

    private final CurrentSnapshot current;

    SearchApi(CurrentSnapshot current) {
        this.current = current;
    }

    @GetMapping("/api/search")
    Hits search(@RequestParam(defaultValue = "") String q) {
        Estate estate = current.now().estate();
        NameFinder finder = new NameFinder(q);
        List<Hit> hits = new ArrayList<>();
        int titles = 0;
        for (Title title : estate.titles()) {
            titles += finder.take(hits, titles, title.name(), () -> new Hit("title", title.id(), title.name(),
                    "title"));
        }
        int kits = 0;
        for (Kit kit : estate.kits().values()) {
            kits += finder.take(hits, kits, kit.name(), () -> new Hit("kit", kit.id(), kit.name(), "kit"));
        }
        int ous = 0;
        for (Ou ou : estate.ous().all()) {
            ous += finder.take(hits, ous, ou.name(), () -> new Hit("ou", ou.id(), ou.name(), where(estate, ou.parent())));
        }
        int groups = 0;
        for (Group group : estate.groups().values()) {
            groups += finder.take(hits, groups, Names.of(group), () -> new Hit("group", group.id(), Names.of(group), "security group"));
        }
        int collections = 0;
        for (DeviceCollection collection : estate.collections().values()) {
            collections += finder.take(hits, collections, Names.of(collection), () -> new Hit("collection", collection.id(), Names.of(collection), "collection"));
        }
        int devices = 0;
        for (int p = 0; p < estate.devices().size(); p++) {
            Device device = estate.devices().at(p);
            devices += finder.take(hits, devices, device.name(), () -> new Hit("device", device.id(), device.name(),
                    device.ou() == null ? "outside every OU" : where(estate, device.ou())));
        }
        int people = 0;
        for (User user : estate.users().all()) {
            people += finder.take(hits, people, user.fullName() + " " + user.name(), () -> new Hit("person", user.id(),
                    Names.of(user), user.name()));
        }
        return new Hits(hits, titles, kits, ous, groups, collections, devices, people);
    }

    /** The names from below the root down to the OU; empty without one. */
    private static String where(Estate estate, @Nullable String ou) {
        return ou == null ? "" : Names.where(estate, ou);
    }
}
