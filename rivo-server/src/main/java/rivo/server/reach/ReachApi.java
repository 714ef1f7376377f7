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
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.OuTree;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
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
import rivo.server.change.WrittenAssignment;
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
     * @param across what lies across the OUs and assigns the title as it would be with the draft: groups, collections, devices, people
     * @param perPerson whether the figures count people on devices
     */
    record ReachView(String title, String titleName, @Nullable String newest, int devices, int people, boolean perPerson,
            OutcomeCounts totals, @Nullable OutcomeCounts totalsAfter, List<PathPart> path, List<OuReach> ous, List<AcrossView.Across> across) {
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
     * @param lit how many of its devices the audience reaches that is lit up; absent where none is
     * @param here what is assigned to exactly this OU, as it would be with the draft
     */
    record OuReach(String id, String name, @Nullable String parent, int depth, int devices, int own, int people,
            int below, int more, int moreDevices, boolean fenced, @Schema(allowableValues = {"required", "available", "uninstall", "contested", "later", "unfit", "blocked",
                "replaced", "displaced", "waiting"})
            @Nullable String outcome, boolean edited, @Nullable Integer lit, OutcomeCounts counts, @Nullable OutcomeCounts after,
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
     * @param lit an audience whose devices are counted in each OU, written {@code KIND:ID}
     */
    @GetMapping("/api/reach/{title}")
    ReachView reach(@PathVariable String title, @RequestParam @Nullable String in, @RequestParam(defaultValue = "") List<String> open,
            @RequestParam @Nullable String lit, Principal who) {
        return view(asked(title, who), in, open, lit);
    }

    /** The same with an assignment, too, that is only being written: nothing of it is kept. */
    @PostMapping("/api/reach/{title}/written")
    ReachView written(@PathVariable String title, @RequestParam @Nullable String in, @RequestParam(defaultValue = "") List<String> open,
            @RequestParam @Nullable String lit, @RequestBody WrittenAssignment written, Principal who) {
        Snapshot snapshot = current.now();
        return view(asked(snapshot, title, Drafts.after(snapshot, who.getName(), written)), in, open, lit);
    }

    private static ReachView view(Asked plain, @Nullable String in, List<String> open, @Nullable String lit) {
        Asked asked = plain.lighting(lit);
        Estate estate = asked.now().estate();
        OuTree tree = estate.ous();
        int top = in == null || tree.find(in) == null ? 0 : tree.position(in);
        MapPart part = MapPart.of(estate, top, open.stream().filter(id -> tree.find(id) != null).map(tree::position).collect(Collectors.toSet()));
        Release newest = asked.title().newest();
        return new ReachView(asked.title().id(), asked.title().name(), newest == null ? null : newest.version().toString(),
                estate.devices().size(), estate.users().size(), asked.title().scope() == Scope.USER, asked.now().countsIn(0), after(asked.now(), asked.then(), 0), PathPart.to(tree, top),
                part.ous().stream().map(ou -> ou(asked, ou, part.rest(ou))).toList(),
                AcrossView.of(estate, asked.then().snapshot(), asked.then().outcomes()));
    }

    /** The OUs that stand in an OU itself, all of them, in the directory's order. */
    @GetMapping("/api/reach/{title}/ous/{ou}/below")
    List<OuReach> below(@PathVariable String title, @PathVariable String ou, Principal who) {
        Asked asked = asked(title, who);
        OuTree tree = asked.now().estate().ous();
        return MapPart.below(tree, position(tree, ou)).stream().map(one -> ou(asked, one, new MapPart.Rest(0, 0))).toList();
    }

    /** What is asked about: a title, as it is and as the draft of whoever asks would make it. */
    private record Asked(Title title, Resolved now, Resolved then, @Nullable DeviceSet lit) {

        /** With the devices of an audience; of one that there is not, none. */
        Asked lighting(@Nullable String audience) {
            Target target = audience == null ? null : Target.parse(audience);
            return target == null ? this : new Asked(title, now, then, Spread.devicesOf(then.resolver().audiences(), target));
        }
    }

    private Asked asked(String title, Principal who) {
        Snapshot snapshot = current.now();
        return asked(snapshot, title, Drafts.after(snapshot, who.getName()));
    }

    private static Asked asked(Snapshot snapshot, String title, Snapshot then) {
        Title known = Titles.title(snapshot, title);
        return new Asked(known, Resolved.of(snapshot, known), Resolved.of(then, known), null);
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
                !Objects.equals(outcome, now.outcomeAt(asked.title(), position)),
                asked.lit() == null ? null : (Integer) asked.lit().countIn(from, estate.devices().to(position)), now.countsIn(position),
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

    /** Everything that assigns the title to some device in the part, the strongest first; what names an OU that has gone is said at the root. */
    private static List<RungView> rungs(Resolved now, Resolved then, Trail trail, int position) {
        PartRungs part = new PartRungs(then.snapshot(), then.outcomes(), trail, position);
        List<RungView> rungs = new ArrayList<>();
        for (Rung rung : trail.rungs()) {
            RungView view = part.view(rung, Rungs.draft(now.estate(), rung.assignment()));
            if (view != null) {
                rungs.add(view);
            }
        }
        return rungs;
    }
}
