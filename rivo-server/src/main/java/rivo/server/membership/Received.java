package rivo.server.membership;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.server.audience.Names;
import rivo.server.estate.Snapshot;

/**
 * What some devices receive of one title.
 *
 * @param outcomes how many of their units have which outcome, the most frequent first
 * @param rungs what decides, for the most first
 */
record Received(String title, String titleName, boolean perPerson, List<OutcomeFigure> outcomes, List<DecidingRung> rungs) {

    record OutcomeFigure(@Schema(allowableValues = {"required", "available", "uninstall", "contested", "later", "unfit", "blocked", "replaced",
        "displaced", "waiting"}) String outcome, int n) {
    }

    /**
     * An assignment that decides.
     *
     * @param targets whom it includes, in words
     * @param n for how many units
     */
    record DecidingRung(String assignment, @Schema(allowableValues = {"required", "available", "uninstall"}) String intent, String targets, boolean binding,
            int n) {
    }

    /** Of every title that some of the devices have an outcome for, by name. Costs the outcomes of every title that is assigned. */
    static List<Received> of(Snapshot snapshot, DeviceSet devices) {
        List<Received> all = new ArrayList<>();
        Resolver resolver = snapshot.resolver();
        for (Title title : resolver.estate().titles()) {
            Received received = of(resolver, title, devices);
            if (!received.outcomes().isEmpty()) {
                all.add(received);
            }
        }
        all.sort((a, b) -> a.titleName().compareToIgnoreCase(b.titleName()));
        return all;
    }

    private static Received of(Resolver resolver, Title title, DeviceSet devices) {
        Audiences audiences = resolver.audiences();
        Map<Outcome, Integer> outcomes = new LinkedHashMap<>();
        Map<Assignment, Integer> deciding = new LinkedHashMap<>();
        for (DecidedUnits part : resolver.title(title).parts()) {
            int n = audiences.on(part.units(), devices).size();
            if (n > 0) {
                outcomes.merge(part.decision().outcome(), n, Integer::sum);
                part.decision().deciding().forEach(assignment -> deciding.merge(assignment, n, Integer::sum));
            }
        }
        return new Received(title.id(), title.name(), title.scope() == Scope.USER,
                outcomes.entrySet().stream().map(e -> new OutcomeFigure(e.getKey().word(), e.getValue())).sorted((a, b) -> b.n() - a.n()).toList(),
                deciding.entrySet().stream().map(e -> new DecidingRung(e.getKey().id(), e.getKey().intent().word(),
                        e.getKey().include().stream().map(target -> Names.of(resolver.estate(), target)).collect(Collectors.joining(", ")),
                        e.getKey().binding(), e.getValue())).sorted((a, b) -> b.n() - a.n()).toList());
    }
}
