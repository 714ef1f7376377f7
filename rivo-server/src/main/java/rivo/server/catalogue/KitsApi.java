package rivo.server.catalogue;

import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
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
import rivo.core.estate.Ou;
import rivo.core.estate.Release;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.resolve.Resolver;
import rivo.server.estate.WorkingEstate;
import rivo.server.web.ApiException;

/** Kits: the list, a kit's page, and changing one. */
@RestController
@RequestMapping("/api/kits")
class KitsApi {

    /** @param assigned by how many assignments that are live */
    record KitLine(KitRecord kit, int assigned) {
    }

    /** @param newest the version that is offered; absent when none is */
    record KitTitle(String id, String name, String maker, String icon, @Nullable String newest) {
    }

    /** @param ouName absent when the OU has gone */
    record KitAssigned(String assignment, String ou, @Nullable String ouName, String intent, boolean binding) {
    }

    record KitPage(KitRecord kit, long revision, String changedBy, Instant changedAt, List<KitTitle> titles,
            List<KitAssigned> assigned) {
    }

    /** @param revision of the kit that was edited, 0 for a new one; why, for the journal */
    record KitChange(KitRecord kit, long revision, @Nullable String why) {
    }

    private final Kits kits;
    private final Catalogue catalogue;
    private final WorkingEstate working;

    KitsApi(Kits kits, Catalogue catalogue, WorkingEstate working) {
        this.kits = kits;
        this.catalogue = catalogue;
        this.working = working;
    }

    @GetMapping
    List<KitLine> kits() {
        Estate estate = working.now();
        return kits.all().stream().map(kept -> new KitLine(kept.record(), live(estate, kept.record().id()).size())).toList();
    }

    @GetMapping("/{id}")
    KitPage kit(@PathVariable String id) {
        Kits.Kept kept = kits.kept(id);
        Estate estate = working.now();
        List<KitTitle> titles = kept.record().titles().stream().map(catalogue::record).map(title -> {
            Release newest = title.title().newest();
            return new KitTitle(title.id(), title.name(), title.maker(), title.about().icon(),
                    newest == null ? null : newest.version().toString());
        }).toList();
        List<KitAssigned> assigned = new ArrayList<>();
        for (Assignment assignment : live(estate, id)) {
            for (Target target : assignment.include()) {
                Ou ou = estate.ous().find(target.id());
                assigned.add(new KitAssigned(assignment.id(), target.id(), ou == null ? null : ou.name(),
                        assignment.intent().word(), assignment.binding()));
            }
        }
        return new KitPage(kept.record(), kept.revision(), kept.changedBy(), kept.changedAt(), titles, assigned);
    }

    private static List<Assignment> live(Estate estate, String kit) {
        Subject subject = Subject.kit(kit);
        return estate.assignments().all().stream().filter(a -> a.subject().equals(subject) && a.isLive(estate.asOf())).toList();
    }

    /** Refused when somebody has changed the kit since, or with what is wrong with it. */
    @PutMapping("/{id}")
    TitlesApi.Saved put(@PathVariable String id, @RequestBody KitChange change, Principal who) {
        sameId(id, change);
        return new TitlesApi.Saved(kits.put(who.getName(), change.revision(), change.kit(), change.why()));
    }

    /** What a changed kit would change for whom. Nothing is kept. */
    @PostMapping("/{id}/rehearsal")
    Effects rehearse(@PathVariable String id, @RequestBody KitChange change) {
        sameId(id, change);
        Resolver before = working.resolver();
        return Effects.of(before, Kits.check(before.estate(), change.kit()));
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
