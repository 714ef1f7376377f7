package rivo.server.catalogue.kit;

import io.swagger.v3.oas.annotations.media.Schema;
import java.security.Principal;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Release;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.server.audience.Names;
import rivo.server.catalogue.title.Effects;
import rivo.server.catalogue.title.Titles;
import rivo.server.document.Kept;
import rivo.server.document.Saved;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** Kits: the list, a kit's page, and changing one. */
@RestController
@RequestMapping("/api/kits")
class KitsApi {

    /** @param assigned by how many assignments that are live */
    record KitLine(KitDocument kit, int assigned) {
    }

    /** @param newest the version that is offered; absent when none is */
    record KitTitle(String id, String name, String maker, String icon, @Nullable String newest) {
    }

    /** @param target whom it is assigned to, {@code KIND:ID}; what has gone keeps its name */
    record KitAssigned(String assignment, String target, String targetName,
            @Schema(allowableValues = {"required", "available", "uninstall"}) String intent, boolean binding) {
    }

    record KitPage(KitDocument kit, long revision, String changedBy, Instant changedAt, List<KitTitle> titles,
            List<KitAssigned> assigned) {
    }

    /** @param revision of the kit that was edited, 0 for a new one; why, for the journal */
    record KitChange(KitDocument kit, long revision, @Nullable String why) {
    }

    private final Kits kits;
    private final CurrentSnapshot current;
    private final Clock clock;

    KitsApi(Kits kits, CurrentSnapshot current, Clock clock) {
        this.kits = kits;
        this.current = current;
        this.clock = clock;
    }

    @GetMapping
    List<KitLine> kits() {
        Snapshot now = current.now();
        return now.get(KitDocument.KIND).stream().map(kit -> new KitLine(kit, live(now.estate(), kit.id()).size())).toList();
    }

    @GetMapping("/{id}")
    KitPage kit(@PathVariable String id) {
        Snapshot now = current.now();
        Kept<KitDocument> kept = Kits.kept(now, id);
        Estate estate = now.estate();
        List<KitTitle> titles = kept.document().titles().stream().map(now.get(Titles.PART)::record).map(title -> {
            Release newest = title.title().newest();
            return new KitTitle(title.id(), title.name(), title.maker(), title.about().icon(),
                    newest == null ? null : newest.version().toString());
        }).toList();
        List<KitAssigned> assigned = new ArrayList<>();
        for (Assignment assignment : live(estate, id)) {
            for (Target target : assignment.include()) {
                assigned.add(new KitAssigned(assignment.id(), target.toString(), Names.of(estate, target), assignment.intent().word(), assignment.binding()));
            }
        }
        return new KitPage(kept.document(), kept.revision(), kept.changedBy(), kept.changedAt(), titles, assigned);
    }

    private static List<Assignment> live(Estate estate, String kit) {
        Subject subject = Subject.kit(kit);
        return estate.assignments().all().stream().filter(a -> a.subject().equals(subject) && a.isLive(estate.asOf())).toList();
    }

    /** Refused when somebody has changed the kit since, or with what is wrong with it. */
    @PutMapping("/{id}")
    Saved put(@PathVariable String id, @RequestBody KitChange change, Principal who) {
        sameId(id, change);
        return new Saved(kits.put(who.getName(), change.revision(), change.kit(), change.why()));
    }

    /** What a changed kit would change for whom. Nothing is kept. */
    @PostMapping("/{id}/rehearsal")
    Effects rehearse(@PathVariable String id, @RequestBody KitChange change, Principal who) {
        sameId(id, change);
        Snapshot before = current.now();
        return Effects.of(before, KitDocument.KIND.with(before,
                List.of(new Kept<>(change.kit(), change.revision() + 1, who.getName(), clock.instant(), null)), Set.of()));
    }

    private static void sameId(String id, KitChange change) {
        if (change.kit() == null || !id.equals(change.kit().id())) {
            throw ApiException.conflict("other-id", "The kit in the body is not the one in the address.");
        }
    }

    /** Refused for a kit by which something was ever assigned. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable String id, Principal who) {
        kits.delete(who.getName(), id);
    }
}
