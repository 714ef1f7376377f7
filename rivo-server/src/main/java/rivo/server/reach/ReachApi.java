package rivo.server.reach;

import io.swagger.v3.oas.annotations.media.Schema;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.OuTree;
import rivo.core.estate.Release;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.explain.Rung;
import rivo.core.explain.Trail;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;
import rivo.server.audience.PathPart;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.title.Titles;
import rivo.server.change.Drafts;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** The map of one title's outcomes, as it is and as the draft would make it. */
@RestController
class ReachApi {

    /**
     * @param totals as it is now
     * @param totalsAfter the same with the draft; absent when the draft changes nothing of it
     * @param path from the root to the OU that the map begins with
     * @param ous that OU, and of what is below it what the map shows, an OU before what is below it
     */
    record ReachView(String title, String titleName, @Nullable String newest, int devices, int people,
            OutcomeCounts totals, @Nullable OutcomeCounts totalsAfter, List<PathPart> path, List<OuReach> ous) {
    }

    /**
     * @param counts of the devices in it and below, as it is now
     * @param after the same with the draft; absent when the draft changes nothing here
     * @param own how many devices stand in the OU itself
     * @param below how many OUs stand in the OU itself
     * @param more how many of those the map leaves out
     * @param moreDevices how many devices are in those and below
     * @param outcome of a device that would stand in the OU itself, as it would be with the draft; absent without one
     * @param edited whether the draft changes that outcome
     * @param here what is assigned to exactly this OU, as it would be with the draft
     */
    record OuReach(String id, String name, @Nullable String parent, int depth, int devices, int own, int people,
            int below, int more, int moreDevices, boolean fenced, @Schema(allowableValues = {"required", "available", "uninstall", "contested", "later", "unfit", "blocked",
                "replaced", "displaced", "waiting"})
            @Nullable String outcome, boolean edited, OutcomeCounts counts, @Nullable OutcomeCounts after,
            List<Here> here) {
    }

    /**
     * @param draft whether only the draft has it
     * @param kit the name of the kit by which it is assigned; absent where the title itself is
     * @param choices what it fixes of the title's choices, by their ids
     */
    record Here(String assignment, @Schema(allowableValues = {"required", "available", "uninstall"}) String intent,
            boolean binding, boolean draft, @Nullable String kit, Map<String, String> choices) {
    }

    /**
     * @param path from the root to the OU itself
     * @param sentence what a device that stands in this OU receives, and why
     * @param rungs as it would be with the draft, the strongest first
     * @param here what is assigned to exactly this OU, as it would be with the draft
     */
    record OuTrail(String id, String name, List<PathPart> path, int devices, int people, boolean fenced,
            OutcomeCounts counts, @Nullable OutcomeCounts after, String sentence, List<RungView> rungs, List<Here> here) {
    }

    private final CurrentSnapshot current;

    ReachApi(CurrentSnapshot current) {
        this.current = current;
    }

    /** A snapshot with the outcomes of one title in it. */
    private record Resolved(Snapshot snapshot, TitleOutcomes outcomes) {

        static Resolved of(Snapshot snapshot, Title title) {
            return new Resolved(snapshot, snapshot.resolver().title(title));
        }

        Resolver resolver() {
            return snapshot.resolver();
        }

        Estate estate() {
            return snapshot.estate();
        }

        /** The outcome of a device that would stand in this OU itself. */
        @Nullable String outcomeAt(Title title, int ou) {
            return Trail.at(resolver(), ou, title).decision().map(decision -> decision.outcome().word()).orElse(null);
        }

        OutcomeCounts countsIn(int ou) {
            return OutcomeCounts.in(resolver().audiences(), outcomes, estate().devices().from(ou), estate().devices().to(ou));
        }
    }

    /**
     * A part of the map.
     *
     * @param in the OU that it begins with; the root where none is given, and where it has gone
     * @param open OUs of which all are shown, however small
     */
    @GetMapping("/api/reach/{title}")
    ReachView reach(@PathVariable String title, @RequestParam @Nullable String in, @RequestParam(defaultValue = "") List<String> open,
            Principal who) {
        Asked asked = asked(title, who);
        Estate estate = asked.now().estate();
        OuTree tree = estate.ous();
        int top = in == null || tree.find(in) == null ? 0 : tree.position(in);
        MapPart part = MapPart.of(estate, top, open.stream().filter(id -> tree.find(id) != null).map(tree::position).collect(Collectors.toSet()));
        Release newest = asked.title().newest();
        return new ReachView(title, asked.title().name(), newest == null ? null : newest.version().toString(),
                estate.devices().size(), estate.users().size(), asked.now().countsIn(0), after(asked.now(), asked.then(), 0), PathPart.to(tree, top),
                part.ous().stream().map(ou -> ou(asked, ou, part.rest(ou))).toList());
    }

    /** The OUs that stand in an OU itself, all of them, in the directory's order. */
    @GetMapping("/api/reach/{title}/ous/{ou}/below")
    List<OuReach> below(@PathVariable String title, @PathVariable String ou, Principal who) {
        Asked asked = asked(title, who);
        OuTree tree = asked.now().estate().ous();
        return MapPart.below(tree, position(tree, ou)).stream().map(one -> ou(asked, one, new MapPart.Rest(0, 0))).toList();
    }

    /** What is asked about: a title, as it is and as the draft of whoever asks would make it. */
    private record Asked(Title title, Resolved now, Resolved then) {
    }

    private Asked asked(String title, Principal who) {
        Snapshot snapshot = current.now();
        Title known = Titles.title(snapshot, title);
        return new Asked(known, Resolved.of(snapshot, known), Resolved.of(Drafts.after(snapshot, who.getName()), known));
    }

    private static int position(OuTree tree, String ou) {
        if (tree.find(ou) == null) {
            throw ApiException.notFound("unknown-ou", "There is no such OU in the directory any more; go back to the "
                    + "map.");
        }
        return tree.position(ou);
    }

    private static OuReach ou(Asked asked, int position, MapPart.Rest rest) {
        Resolved now = asked.now();
        Estate estate = now.estate();
        Ou ou = estate.ous().at(position);
        int from = estate.devices().from(position);
        String outcome = asked.then().outcomeAt(asked.title(), position);
        return new OuReach(ou.id(), ou.name(), ou.parent(), estate.ous().depth(position),
                estate.devices().to(position) - from, estate.devices().ownTo(position) - from,
                estate.users().countIn(position), MapPart.below(estate.ous(), position).size(), rest.ous(), rest.devices(), ou.fenced(), outcome,
                !Objects.equals(outcome, now.outcomeAt(asked.title(), position)), now.countsIn(position),
                after(now, asked.then(), position), here(now.estate(), asked.then().snapshot(), asked.title(), ou));
    }

    private static @Nullable OutcomeCounts after(Resolved now, Resolved then, int position) {
        OutcomeCounts after = then.countsIn(position);
        return after.equals(now.countsIn(position)) ? null : after;
    }

    private static List<Here> here(Estate now, Snapshot after, Title title, Ou ou) {
        Estate then = after.estate();
        return then.assignments().of(title.id()).stream().filter(a -> a.isLive(then.asOf()) && a.include().contains(Target.ou(ou.id())))
                .map(a -> new Here(a.id(), a.intent().word(), a.binding(), !a.equals(now.assignments().find(a.id())),
                        Rungs.kit(then, a), FixedChoices.of(after, a.id())))
                .sorted(Comparator.comparing(h -> h.kit() != null)).toList();
    }

    @GetMapping("/api/reach/{title}/ous/{ou}")
    OuTrail ou(@PathVariable String title, @PathVariable String ou, Principal who) {
        Asked asked = asked(title, who);
        Resolved now = asked.now();
        Estate estate = now.estate();
        OuTree tree = estate.ous();
        int position = position(tree, ou);
        Ou found = tree.at(position);
        Trail trail = Trail.at(asked.then().resolver(), position, asked.title());
        return new OuTrail(found.id(), found.name(), PathPart.to(tree, position),
                estate.devices().to(position) - estate.devices().from(position),
                estate.users().countIn(position), found.fenced(), now.countsIn(position),
                after(now, asked.then(), position), trail.sentence(), rungs(now, asked.then(), trail, position),
                here(estate, asked.then().snapshot(), asked.title(), found));
    }

    /** First what is nearer and decides for a part, then the OU's own trail; what names an OU that has gone is said at the root. */
    private static List<RungView> rungs(Resolved now, Resolved then, Trail trail, int position) {
        OuTree tree = then.estate().ous();
        List<RungView> inside = new ArrayList<>();
        List<RungView> own = new ArrayList<>();
        for (Rung rung : trail.rungs()) {
            Assignment assignment = rung.assignment();
            String draft = Rungs.draft(now.estate(), assignment);
            if (rung.target().kind() != Target.Kind.OU) {
                continue;
            }
            boolean live = assignment.isLive(then.estate().asOf());
            if (tree.find(rung.target().id()) == null) {
                if (live && position == 0) {
                    own.add(Rungs.view(then.snapshot(), rung, Rungs.code(rung.verdict()), trail.sentence(rung), 0, draft));
                }
                continue;
            }
            int target = tree.position(rung.target().id());
            int decides = decides(then, assignment, position);
            boolean nearer = target != position && tree.isAtOrBelow(target, position);
            if (nearer && live) {
                inside.add(Rungs.view(then.snapshot(), rung, "inside", "nearer, for a part", decides, draft));
            } else if (live && tree.isAtOrBelow(position, target)) {
                own.add(Rungs.view(then.snapshot(), rung, Rungs.code(rung.verdict()), trail.sentence(rung), decides,
                        draft));
            } else if ("ended".equals(draft) && (nearer || tree.isAtOrBelow(position, target))) {
                own.add(Rungs.view(then.snapshot(), rung, "ended", "ended by the draft", 0, draft));
            }
        }
        inside.addAll(own);
        return inside;
    }

    private static int decides(Resolved then, Assignment assignment, int position) {
        int from = then.estate().devices().from(position);
        int to = then.estate().devices().to(position);
        return then.outcomes().parts().stream().filter(part -> part.decision().deciding().contains(assignment))
                .mapToInt(part -> then.resolver().audiences().countOn(part.units(), from, to)).sum();
    }
}
